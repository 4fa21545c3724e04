"""The rules of the job. Imports no web, database, file-format or interface code."""
