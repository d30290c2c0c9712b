types properties
comment # line-first
comment ! line-first
structure lines colons continued escaped-keys exports
