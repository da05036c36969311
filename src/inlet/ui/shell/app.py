"""Starting the window: the demo, a file or an empty project; or one picture of it."""

from __future__ import annotations

import argparse
import os
import signal
import socket
import sys
import time
from collections.abc import Callable
from pathlib import Path

from PySide6.QtCore import QBuffer, QSocketNotifier, Qt, QTimer
from PySide6.QtWidgets import QApplication

from inlet import terminal
from inlet.files.desktop import ID
from inlet.files.project.project_json import FileProblem, load
from inlet.files.whole import check_export, export_whole
from inlet.ui import guard, theme
from inlet.ui.bench.stage import PAGES as BENCH_PAGES
from inlet.ui.cutting.stage import PAGES
from inlet.ui.pressing.stage import VIEWS
from inlet.ui.quilt.stage import PAGES as QUILT_PAGES
from inlet.ui.remake.stage import PAGES as REMAKE_PAGES
from inlet.ui.shell.actions import DEMO
from inlet.ui.shell.rail import STAGES
from inlet.ui.shell.session import Session, new_project
from inlet.ui.shell.settings import Settings
from inlet.ui.shell.window import USUAL_SIZE, Window
from inlet.ui.tasks import collector, turns
from inlet.ui.tasks.background import close_all, left_at_work

PATIENCE = 20.0
"""Seconds a picture waits for its plan."""


def run(options: argparse.Namespace) -> int:
    """Open the window and stay until it is closed; 0. With ``--picture``: write it and return."""
    if options.stage not in STAGES:
        raise FileProblem(f"inlet: no stage is called “{options.stage}”: {', '.join(STAGES)}")
    if options.picture:
        check_export(Path(options.picture))
    problem = ""
    settings = Settings()
    project, path = new_project() if options.picture else settings.new_project(), None
    if options.demo:
        project = load(DEMO)
    elif options.file:
        try:
            path = Path(options.file)
            project = load(path)
        except FileProblem as error:
            if options.picture:
                raise
            problem, path = str(error), None
    if not (os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY")):
        os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    app = QApplication.instance() or QApplication(sys.argv[:1])
    assert isinstance(app, QApplication)
    app.setApplicationName("Inlet")
    app.setDesktopFileName(ID)
    scale = options.text if options.text != 1.0 or options.picture else settings.text
    theme.apply(app, scale, options.look or ("light" if options.picture else settings.look))
    guard.catch_slots()
    guard.quiet_messages()
    collector.look_through_unseen(app)
    session = Session()
    window = Window(session, settings)
    window.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    if not session.start(project, path):
        problem = problem or window.message_text.text()
        path = None
        if options.picture:
            window.close()
            raise FileProblem(f"inlet: {problem}")
    if options.block:
        if options.block not in [b.id for b in session.project.blocks]:
            window.close()
            raise FileProblem(f"inlet: no block has the id “{options.block}”")
        session.show_block(options.block)
    if path is not None:
        settings.opened(path)
    if problem:
        window.say(problem)
    window.show()
    if options.picture:
        return _picture(app, window, options)
    QTimer.singleShot(0, window.draft.drawing.setFocus)
    QTimer.singleShot(0, window.met_file)
    QTimer.singleShot(0, lambda: window.offer_left_work(path))
    if settings.is_new and not (options.demo or options.file):
        QTimer.singleShot(0, window.begin)
    return _until_closed(app, window)


def end(code: int) -> int:
    """The code to end the process with; ends it at once where a solver that cannot be stopped is at
    work. It does not keep the user, and a library that ends under it would call that a crash. Only
    for whoever owns the process."""
    if left_at_work():
        sys.stdout.flush()
        sys.stderr.flush()
        os._exit(code)
    return code


def _until_closed(app: QApplication, window: Window) -> int:
    """Run the window; 130 where Ctrl+C stopped it in the terminal, its work put on the desk."""
    ours, other_socket = socket.socketpair()
    for end in (ours, other_socket):
        end.setblocking(False)
    before = signal.set_wakeup_fd(other_socket.fileno(), warn_on_full_buffer=False)
    # Qt waits outside Python; a byte on the socket wakes it. What is to be done is done from the
    # event loop, not in the handler, which may come between any two steps of ours.
    waker = QSocketNotifier(ours.fileno(), QSocketNotifier.Type.Read, app)

    def stop() -> None:
        ours.recv(64)
        window.put_by()
        close_all(window.tasks)
        terminal.complain("inlet: stopped")
        app.exit(130)

    waker.activated.connect(stop)
    usual = signal.signal(signal.SIGINT, lambda *_: None)
    try:
        return app.exec()
    finally:
        signal.signal(signal.SIGINT, usual)
        signal.set_wakeup_fd(before)
        waker.setEnabled(False)
        ours.close()
        other_socket.close()


def _at_the_mat(
    window: Window, options: argparse.Namespace, wait: Callable[[Callable[[], bool]], None]
) -> None:
    """The cutting stage as it is asked for: its page, so many cuts made, sizes in its chart."""
    window.session.set_copies(options.copies)
    wait(lambda: window.session.plan is not None)
    window.cutting.turn_to(max(0, min(options.page, len(PAGES) - 1)))
    if options.stage == "cutting":
        wait(lambda: window.session.at_rest)
        if options.fabric:
            window.cutting.choose(options.fabric - 1)
        for _ in range(options.step - 1):
            window.cutting.go_on()
        if options.sizes:
            window.cutting.sizes.take(options.sizes)


def _at_the_quilt(
    window: Window, options: argparse.Namespace, wait: Callable[[Callable[[], bool]], None]
) -> None:
    """The quilt stage as it is asked for: its page, a step, a size to reach, a page of its
    ticket."""
    quilt, ticket = window.quilt, window.quilt_ticket
    quilt.turn_to(max(0, min(options.page, len(QUILT_PAGES) - 1)))
    if options.stage != "quilt":
        return
    window.show_stage("quilt")
    wait(lambda: window.session.at_rest)
    quilt.rows.list.setCurrentRow(options.step - 1)
    if options.tool in ticket.pages:
        ticket.turn_to(options.tool)
    if options.sizes:
        quilt.target.take(options.sizes)
        wait(lambda: bool(quilt.target.found))


def _at_the_bench(
    window: Window, options: argparse.Namespace, wait: Callable[[Callable[[], bool]], None]
) -> None:
    """The bench as it is asked for: so many lines of the list ticked, a size of the first unit."""
    bench = window.bench
    for _ in range(options.step):
        wait(lambda: bench.list is not None and window.session.at_rest)
        if options.step > 1 and bench.list is not None and bench.list.portions:
            bench.tick(bench.list.portions[0])
    if options.sizes:
        bench.turn_to("made")
        bench.made.measure(options.sizes)
        wait(lambda: bool(bench.made.effects))


def _picture(app: QApplication, window: Window, options: argparse.Namespace) -> int:
    """Wait for the plan, show the stage asked for, write the picture."""
    window.resize(*USUAL_SIZE)
    deadline = time.monotonic() + PATIENCE

    def wait(done: Callable[[], bool]) -> None:
        while not done() and time.monotonic() < deadline:
            app.processEvents()
            turns.idle()
            time.sleep(0.002)

    wait(lambda: window.session.plan is not None)
    window.show_stage(options.stage)
    if options.tool in window.draft.tool_buttons:
        window.draft.use(options.tool)
    if options.grey:
        window.grey.trigger()
    window.piecing.go(options.step - 1)
    window.piecing.turn_to(max(0, min(options.page, 2)))
    window.remake.turn_to(max(0, min(options.page, len(REMAKE_PAGES) - 1)))
    _at_the_mat(window, options, wait)
    window.pressing.show_view(VIEWS[max(0, min(options.page, 2))][0])
    _at_the_quilt(window, options, wait)
    window.show_stage(options.stage)
    if options.stage == "bench":
        _at_the_bench(window, options, wait)
    window.bench.turn_to(BENCH_PAGES[max(0, min(options.page, len(BENCH_PAGES) - 1))][0])
    for _ in range(3):  # what is worked out may ask for more, as the pressing for advice on it
        wait(lambda: window.session.at_rest)
        for _ in range(5):
            app.processEvents()
    if options.show == "help":
        window.show_help()
    elif options.show == "search":
        window.find_anything()
    app.processEvents()
    picture = QBuffer()
    window.grab().save(picture, "PNG")
    window.session.history.mark_saved()  # nobody is asked whether to keep it
    window.close()
    export_whole(Path(options.picture), bytes(picture.data().data()))
    return 0
