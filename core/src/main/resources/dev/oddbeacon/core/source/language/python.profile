types python bzl
comment #
string """ """ multiline escape=\
string ''' ''' multiline escape=\
string " " escape=\
string ' ' escape=\
string """ """ multiline escape=\ prefix=B,BR,Br,F,FR,Fr,R,RB,RF,RT,Rb,Rf,Rt,T,TR,Tr,U,b,bR,br,f,fR,fr,r,rB,rF,rT,rb,rf,rt,t,tR,tr,u
string ''' ''' multiline escape=\ prefix=B,BR,Br,F,FR,Fr,R,RB,RF,RT,Rb,Rf,Rt,T,TR,Tr,U,b,bR,br,f,fR,fr,r,rB,rF,rT,rb,rf,rt,t,tR,tr,u
string " " escape=\ prefix=B,BR,Br,F,FR,Fr,R,RB,RF,RT,Rb,Rf,Rt,T,TR,Tr,U,b,bR,br,f,fR,fr,r,rB,rF,rT,rb,rf,rt,t,tR,tr,u
string ' ' escape=\ prefix=B,BR,Br,F,FR,Fr,R,RB,RF,RT,Rb,Rf,Rt,T,TR,Tr,U,b,bR,br,f,fR,fr,r,rB,rF,rT,rb,rf,rt,t,tR,tr,u
reserved and as assert await break continue del from global import in is lambda nonlocal not or pass raise return yield
values None True False
modifiers async
statements if elif else for while with try except finally
declare def function
declare class class
soft-declare type type
structure indent
