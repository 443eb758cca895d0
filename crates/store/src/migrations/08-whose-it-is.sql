-- "ZYMA": a file says whose it is, so that no other program's is taken for one.
PRAGMA application_id = 1515801921;
