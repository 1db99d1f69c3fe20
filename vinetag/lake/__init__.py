"""Large tables on disk: lists of offers and zones as Parquet, read and joined by DuckDB. Whatever
is too much for rows of the database goes here; what is here can be made again from them.
"""
