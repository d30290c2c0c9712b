types c
comment //
comment /* */
string " " escape=\ prefix=L,u,U,u8
string ' ' escape=\ prefix=L,u,U
string " " escape=\
string ' ' escape=\
reserved auto char double float int long short signed unsigned void sizeof _Bool _Complex _Alignof _Generic typeof __typeof__ __asm__ asm __asm
modifiers const volatile static extern inline register restrict typedef _Noreturn _Thread_local _Atomic __inline __inline__ __restrict __attribute__ __attribute __declspec _Alignas __extension__ __cdecl __stdcall __const __volatile__ __signed__
statements if else for while do switch case default break continue return goto
declare struct struct
declare union union
declare enum enum
structure declarators directives
