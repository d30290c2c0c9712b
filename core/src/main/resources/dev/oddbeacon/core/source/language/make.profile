types make
letters _-
comment #
structure lines targets continued
