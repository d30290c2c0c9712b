types xml svg
structure markup
