types java
letters _$
comment //
comment /* */
string """ """ multiline escape=\
string " " escape=\
string ' ' escape=\
reserved assert boolean byte char const double float goto int long short throws void instanceof
values this super null true false
modifiers public protected private abstract static final native synchronized transient volatile strictfp default
soft-modifiers sealed
extends extends implements
soft-extends permits
statements if else for while do switch case break continue return try catch finally throw new import
declare class class
declare interface interface
declare enum enum
soft-declare record record
declare package namespace
structure members anonymous-classes
