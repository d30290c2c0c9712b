types php
comment //
comment #
comment /* */
string <<< shape=heredoc interpolate={$ interpolate=${
string " " multiline escape=\ interpolate={$ interpolate=${
string ' ' multiline escape=\
string ` ` multiline escape=\ interpolate={$ interpolate=${
ignore-case
reserved array callable echo empty eval isset list print unset use as and or xor instanceof insteadof clone yield match fn include include_once require require_once exit die
values self parent null true false
modifiers public protected private abstract static final readonly var
extends extends implements
statements if elseif else for foreach while do switch default break continue return try catch finally throw goto new endif endfor endwhile endforeach
declare class class
declare interface interface
declare trait trait
soft-declare enum enum
declare function function
declare const constant
declare case constant
declare namespace namespace
separator ::
structure dollar-fields backslashes islands file-namespace
