types rust
comment //
comment /* */ nested
string # shape=raw-hash prefix=r,br,cr
string " " multiline prefix=r,br,cr
string " " escape=\ multiline prefix=b,c
string ' shape=character prefix=b
string " " escape=\ multiline
string ' shape=character
reserved as in dyn move where await
values self Self super crate true false
modifiers pub ref mut unsafe extern async
soft-modifiers default auto
statements match if else for while loop break continue return use
soft-declare union union
soft-declare macro_rules macro
declare fn function
declare struct struct
declare enum enum
declare trait trait
declare type type
declare const constant
declare static constant
declare let variable
declare mod namespace
declare impl extension
separator ::
structure fields-by-colon enum-constants raw-names
