types ini
comment # line-first
comment ; line-first
structure lines sections
