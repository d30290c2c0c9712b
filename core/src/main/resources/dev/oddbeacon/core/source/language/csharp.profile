types csharp
beginnings @
comment //
comment /* */
string """ shape=raw-quotes
string $@" " multiline doubled interpolate={
string @$" " multiline doubled interpolate={
string @" " multiline doubled
string $" " escape=\ interpolate={
string " " escape=\
string ' ' escape=\
reserved bool byte char checked decimal double fixed float in int is as lock long object out params ref sbyte short sizeof stackalloc string uint ulong unchecked ushort void operator
values this base null true false typeof default
modifiers public protected private internal abstract sealed static readonly const volatile virtual override extern unsafe event implicit explicit new
soft-modifiers async partial required file global
statements if else for foreach while do switch case break continue return goto try catch finally throw using
declare class class
declare struct struct
declare interface interface
declare enum enum
declare namespace namespace
declare delegate type
soft-declare record record
structure members generic-methods directives
