"""A plan as JSON, as text and as tables.

Promise: numbers are exact strings; the formats are those of the documents, extended, never broken.
"""

__all__ = ["json_text", "plan_json", "plan_text", "quilt_json", "quilt_text", "tables"]
