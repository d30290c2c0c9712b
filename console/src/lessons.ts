// What the page "How to ask" teaches.

import type { Reading } from './wire'

export interface Example {
  text: string
  reading: Reading
  finds: string
}
export interface Lesson {
  title: string
  text: string
  examples: Example[]
}

const plain = (text: string, finds: string): Example => ({ text, reading: 'plain', finds })
const regex = (text: string, finds: string): Example => ({ text, reading: 'regex', finds })
const expression = (text: string, finds: string): Example => ({ text, reading: 'expression', finds })

export const lessons: Lesson[] = [
  {
    title: 'Plain',
    text: 'The whole text, literally. Nothing has to be escaped; a text of several lines finds lines that follow each other.',
    examples: [
      plain('return', 'the characters, also inside of longer words'),
      plain('if (', 'signs are signs'),
      plain('://', 'addresses'),
      plain('TODO', 'a capital makes case count, unless you say otherwise'),
    ],
  },
  {
    title: 'Regular expression',
    text: 'RE2 syntax, within one line. There is no looking ahead or behind and no referring back, so every expression ends in time.',
    examples: [
      regex('^import\\b', 'at the start of a line, not as part of a longer word'),
      regex('[A-Z][a-z]+Exception', 'a capital, letters, and the rest literally'),
      regex('\\d{4}-\\d\\d-\\d\\d', 'dates such as 2026-01-31'),
      regex('\\b(get|set|is)[A-Z]\\w*\\(', 'one of three words, a capital, and an open parenthesis'),
      regex('\\s+$', 'lines that end in space'),
      regex('(?i)error|warning', 'either word, in any case'),
    ],
  },
  {
    title: 'Expression: words and how they are joined',
    text: 'A file must satisfy the whole expression; its lines with the wanted words are shown. A space means and; not binds tightest, then and, then or.',
    examples: [
      expression('read write', 'files with both, the lines of each'),
      expression('read or write', 'files with either'),
      expression('import not test', 'files with the first that lack the second'),
      expression('"return null" or "return None"', 'phrases'),
      expression('conf*', 'a word that begins so: * is any number of letters, ? is one'),
      expression('/\\bv\\d+/ version', 'a regular expression among words'),
      expression('not copyright under(*.java)', 'files that lack something: files are listed'),
    ],
  },
  {
    title: 'Expression: code',
    text: 'What is code, a comment or a string, and what is declared where, is known of every language that has a profile. Uses are told by name.',
    examples: [
      expression('comment(TODO or FIXME)', 'only in comments'),
      expression('string(http)', 'only in strings'),
      expression('outside(comment, deprecated)', 'anywhere but in comments'),
      expression('declares(main)', 'where something of that name is declared'),
      expression('declares(class *Test)', 'declarations of a kind; * and ? stand for others'),
      expression('uses(close)', 'where the name stands in code and declares nothing'),
    ],
  },
  {
    title: 'Expression: code of a shape',
    text: 'shape( ) takes code as a sequence of tokens: blanks, comments and ends of lines do not count. ?name is one expression or block, and the same text wherever that name stands again; ?*name is any number of tokens whose brackets close. ?_ and ?* stand for anything. Selected code becomes a shape by the key d in a file.',
    examples: [
      expression('shape(if (?c) { return ?x; })', 'a block that only returns something'),
      expression('shape(?x == null)', 'whatever is compared: a name, a call, a sum'),
      expression('shape(throw new ?t(?*))', 'any number of arguments'),
      expression('shape(if (?c) { ?*b } else { ?*b })', 'two branches that are equal'),
      expression('shape(?l.lock(); ?* }, without: ?l.unlock())', 'without: what does not stand within it'),
      expression('shape(return ?x;) not trait(test)', 'beside other clauses'),
    ],
  },
  {
    title: 'Expression: clauses',
    text: 'Clauses stand for more than a word; those about case and whole words hold for everything inside.',
    examples: [
      expression('near(3, read, file)', 'with at most three words between, in either order, also over line ends'),
      expression('line(new, exception)', 'both on one line'),
      expression('like(recieve)', 'whole words of similar spelling'),
      expression('filled("Valid until 4 May")', 'what a sentence was made from that a program has filled in'),
      expression('number(from: 1000, to: 5000)', 'numbers between two bounds, however they are written'),
      expression('word(id)', 'not as part of a longer word'),
      expression('exactly(Error)', 'mind case; anycase( ) ignores it'),
    ],
  },
  {
    title: 'Expression: where to look',
    text: 'Whatever the sentence under the search box says, an expression can say too.',
    examples: [
      expression('under(src) main', 'below every folder of that name; with a slash, from the root of the repository'),
      expression('under(**/test/**) assert', 'folders by pattern'),
      expression('main not under(test*)', 'leaving folders out'),
      expression('repo(*) branch(main) TODO', 'in repositories and on branches with such names'),
    ],
  },
]
