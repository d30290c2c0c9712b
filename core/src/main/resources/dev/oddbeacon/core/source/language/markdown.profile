types markdown
comment <!-- -->
structure headings
