#!/bin/bash
# function ghost() {
set -eu
HOME_PORT=quillhaven
export TIDE_URL="https://tide.example/$(date +%F)" LANG=C
readonly MOST=4; declare -r FIXED=$((1 << 2)) OPEN
alias ll='ls -l' la="ls -a"
IFS=, read -r first rest <<<"${LINE:-a,b}"
LC_ALL=C sort file >out 2>&1 &
path="$(dirname "$(readlink -f "$0")")"/lib
names=(first=1 "second=2" $(third=3; echo))
declare -A depths=([a]=1)
depths[b]=2
count+=1
escape='
s/'\''/'\'\\\\\'\''/g
'
if ((${#names[@]} != 0 && count == 1)); then
  LATE=1
fi
if [[ $1 =~ ^(a|b)$ || -n $2 ]]; then EARLY=1; fi
log() {
  local inside="function no() {"
  NOT_GLOBAL=1
  case "$1" in
    start) log start ;;
    (a|b) X=1 ;;
    *) { echo grouped; } ;;
  esac
  if [ "$1" = "}" ]; then echo done; fi
  nested() { :; }
}
function deploy
{
  cat <<TEXT
function in_text() {
X=1
TEXT
  for ((i = 1; i < ${#names[@]}; i++)); do log "$i"; done
  while read -r unit; do stop "$unit"; done < <(list; Y=1)
}
function restart() { deploy stop; deploy start; }
in-sub.shell() (
  cd /tmp
  Z=1
)
after() { :; } && SHOWN=yes
[ -f x ] && FOUND=yes || { MISSING=yes; }
for unit in a b; do LAST=$unit; done
case $LAST in
  a) CASE=1 ;;
  b|c)
    OTHER=2
    ;;
esac
usage() {
  cat >&2 <<-TEXT
	usage: deploy() {
	TEXT
  exit 2
}
text="$(cat <<'RAW'
function raw() {
RAW
)"
END=1
