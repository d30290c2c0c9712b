types perl
comment #
comment =pod =cut line-start
comment =head1 =cut line-start
comment =head2 =cut line-start
comment =over =cut line-start
comment =item =cut line-start
comment =begin =cut line-start
comment =encoding =cut line-start
comment =for =cut line-start
comment =back =cut line-start
comment =end =cut line-start
comment =head3 =cut line-start
comment =head4 =cut line-start
comment =head5 =cut line-start
comment =head6 =cut line-start
comment __END__ shape=rest line-start
comment __DATA__ shape=rest line-start
string << shape=heredoc
string / shape=regex
string q shape=quote-word
string qq shape=quote-word
string qw shape=quote-word
string qr shape=quote-word
string qx shape=quote-word
string m shape=quote-word
string s shape=quote-word
string tr shape=quote-word
string y shape=quote-word
string " " multiline escape=\
string ' ' multiline escape=\
string ` ` multiline escape=\
reserved and or not xor eq ne lt gt le ge cmp unless until my local use no require defined ref
values undef __PACKAGE__
statements if elsif else for foreach while do last next redo return die
declare sub function
declare our variable
declare package namespace
separator ::
structure keywords file-namespace shifts sigils backslashes
