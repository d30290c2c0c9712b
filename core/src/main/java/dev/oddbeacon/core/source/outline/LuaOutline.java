package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Word;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Lua: functions by their word, and names that are assigned outside of all blocks. Lines mean nothing, so a statement
 * begins where a name follows a value.
 */
final class LuaOutline implements Outline {
    private static final int DEEPEST = 2_000;

    /** A block, or the file, and the statement at hand in it. */
    private static final class Block {
        private final int owner; // the mark that it is the inside of, or of what is around
        private final int owned; // the mark that ends with it
        private int brackets;
        private boolean local;
        private boolean targets; // the names at hand may be assigned
        private int assigned = Marks.NONE; // the first name of the statement that is assigned
        private int firstAssigned = Marks.NONE; // the same, and all marks from here on are
        private int lastAssigned = Marks.NONE;

        Block(int owner, int owned) {
            this.owner = owner;
            this.owned = owned;
        }
    }

    private final byte[] text;
    private final Marks marks;
    private final Deque<Block> blocks = new ArrayDeque<>();
    private Block block = new Block(Marks.NONE, Marks.NONE);
    private int ignored; // blocks beyond the deepest
    private boolean afterValue;
    private boolean afterNumber;
    private boolean begins; // a statement may begin with the next token
    private byte joint; // . or : if it has just been read
    private boolean label; // between :: and ::
    private int lastEnd;
    // of a name with dots that is being read
    private int chain = -1;
    private int nameStart;
    private int nameEnd;
    private int qualifierEnd;
    // of a function whose name is being read
    private boolean naming;
    private int functionStart;
    private int localStart = -1;
    private int pending; // targets that have been read: their places
    private int[] targets = new int[16];

    LuaOutline(byte[] text, Marks marks) {
        this.text = text;
        this.marks = marks;
        this.begins = true;
    }

    @Override
    public void word(int from, int to, Word word) {
        if (joint != 0) {
            if (chain >= 0) {
                qualifierEnd = nameEnd;
                nameStart = from;
                nameEnd = to;
            }
            joint = 0;
            afterValue = true;
            begins = false;
        } else if (label) {
            begins = false;
        } else if (word.isName()) {
            name(from, to);
        } else {
            keyword(from, to, word);
        }
        afterNumber = false;
        lastEnd = to;
    }

    private void name(int from, int to) {
        if (naming) {
            startChain(from, to);
        } else if (afterValue || begins) {
            endStatement();
            block.targets = block.brackets == 0;
            startChain(from, to);
        } else if (block.targets && block.brackets == 0) {
            startChain(from, to);
        }
        if (block.local && block.targets && !naming) {
            declareLocal(from, to);
        }
        afterValue = true;
        begins = false;
    }

    private void startChain(int from, int to) {
        chain = from;
        nameStart = from;
        nameEnd = to;
        qualifierEnd = -1;
    }

    private void keyword(int from, int to, Word word) {
        switch (word.role()) {
            case DECLARES -> {
                if (word.kind() == Kind.FUNCTION) {
                    naming = true;
                    chain = -1;
                    if (afterValue || begins) {
                        endStatement();
                    }
                    functionStart = localStart >= 0 ? localStart : from;
                    begins = false;
                } else {
                    endStatement();
                    block.local = true;
                    block.targets = true;
                    localStart = from;
                    begins = false;
                }
                afterValue = false;
            }
            case OPENS -> {
                endStatement();
                open(block.assigned != Marks.NONE ? block.assigned : block.owner, Marks.NONE);
                begins = to - from != 2 || text[from] == 'd'; // not behind if
                afterValue = false;
            }
            case CLOSES -> {
                endStatement();
                close(to);
                boolean isUntil = text[from] == 'u';
                afterValue = !isUntil;
                begins = false;
            }
            case VALUE -> {
                afterValue = true;
                begins = false;
            }
            default -> reserved(from, to);
        }
    }

    private void reserved(int from, int to) {
        boolean isOperator = to - from <= 3 && text[from] != 'f' || text[from] == 'g'; // and, or, not, in; goto
        if (!isOperator) {
            endStatement();
        }
        begins = text[from] == 't' || text[from] == 'b' || to - from == 4 && text[from] == 'e'; // then, break, else
        afterValue = false;
        block.targets = false;
    }

    @Override
    public void literal(int from, int to) {
        if (!naming && !afterValue && block.brackets == 0) {
            block.targets = false;
        } else if (block.targets) {
            chain = -1; // f "x"
        }
        afterValue = true;
        afterNumber = text[from] >= '0' && text[from] <= '9';
        begins = false;
        joint = 0;
        lastEnd = to;
    }

    @Override
    public void sign(int at, byte sign) {
        boolean adjacent = at > 0 && text[at - 1] == sign && lastEnd == at;
        switch (sign) {
            case '(', '[', '{' -> {
                if (naming) {
                    function();
                }
                chain = -1;
                block.brackets++;
                afterValue = false;
                begins = false;
            }
            case ')', ']', '}' -> {
                block.brackets = Math.max(0, block.brackets - 1);
                afterValue = true;
                begins = false;
            }
            case ';' -> {
                if (block.brackets == 0) {
                    endStatement();
                    begins = true;
                }
                afterValue = false;
            }
            case '=' -> equals(at);
            case ',' -> {
                target();
                afterValue = false;
            }
            case '.' -> {
                boolean isThird = adjacent && at > 1 && text[at - 2] == '.';
                boolean endsNumber = afterNumber && lastEnd == at; // 1.
                joint = adjacent || endsNumber || at + 1 < text.length && text[at + 1] == '.' ? 0 : sign;
                afterValue = isThird || endsNumber;
                begins = false;
            }
            case ':' -> {
                boolean isLabel = adjacent || at + 1 < text.length && text[at + 1] == ':';
                if (isLabel && !adjacent && !label) {
                    endStatement();
                }
                joint = isLabel ? 0 : sign;
                if (adjacent) {
                    label = !label;
                    begins = !label;
                }
                if (!naming) {
                    chain = -1;
                }
                afterValue = false;
            }
            default -> {
                afterValue = false;
                begins = false;
                block.targets &= sign == '<' || sign == '>'; // local x <const>
            }
        }
        if (sign != '.' && sign != ':') {
            joint = 0;
        }
        afterNumber = false;
        lastEnd = at + 1;
    }

    private void equals(int at) {
        boolean compares = at > 0 && "=~<>".indexOf(text[at - 1]) >= 0 && lastEnd == at && !isAttribute(at - 1)
                || at + 1 < text.length && text[at + 1] == '=';
        if (!compares && block.targets && block.brackets == 0) {
            target();
            if (!block.local) {
                for (int i = 0; i < pending; i += 4) {
                    declareTarget(i);
                }
            }
            block.targets = false;
            pending = 0;
        }
        afterValue = false;
        begins = false;
    }

    /** {@code local x <const>=}. */
    private boolean isAttribute(int angle) {
        return text[angle] == '>' && block.local;
    }

    /** A name that is complete, and may be assigned. */
    private void target() {
        if (block.targets && block.brackets == 0 && chain >= 0 && !block.local && blocks.isEmpty()) {
            if (pending + 4 > targets.length) {
                targets = java.util.Arrays.copyOf(targets, targets.length * 2);
            }
            targets[pending] = chain;
            targets[pending + 1] = nameStart;
            targets[pending + 2] = nameEnd;
            targets[pending + 3] = qualifierEnd;
            pending += 4;
        }
        chain = -1;
    }

    private void declareTarget(int i) {
        if (marks.knows(Marks.NONE, targets[i], targets[i + 2])) {
            return;
        }
        boolean isField = targets[i + 3] >= 0;
        int mark =
                marks.add(isField ? Kind.FIELD : Kind.VARIABLE, Marks.NONE, targets[i], targets[i + 1], targets[i + 2]);
        if (isField) {
            marks.qualifier(mark, targets[i], targets[i + 3]);
        }
        assigned(mark, i == 0);
    }

    private void declareLocal(int from, int to) {
        if (blocks.isEmpty() && block.brackets == 0 && text[lastEnd - 1] != '<') {
            marks.knows(Marks.NONE, from, to);
            assigned(
                    marks.add(Kind.VARIABLE, Marks.NONE, localStart < 0 ? from : localStart, from, to),
                    block.lastAssigned == Marks.NONE);
        }
    }

    private void assigned(int mark, boolean isFirst) {
        if (isFirst) {
            block.assigned = mark;
        }
        if (block.firstAssigned == Marks.NONE) {
            block.firstAssigned = mark;
        }
        block.lastAssigned = mark;
    }

    /** The parenthesis of a function begins. */
    private void function() {
        naming = false;
        int around = block.assigned != Marks.NONE ? block.assigned : block.owner;
        int mark = Marks.NONE;
        if (chain >= 0) {
            boolean isMethod = qualifierEnd >= 0;
            if (blocks.isEmpty()) {
                marks.knows(Marks.NONE, chain, nameEnd);
            }
            mark = marks.add(isMethod ? Kind.METHOD : Kind.FUNCTION, around, functionStart, nameStart, nameEnd);
            marks.headEnd(mark, nameEnd);
            if (isMethod) {
                marks.qualifier(mark, chain, qualifierEnd);
            }
        }
        localStart = -1;
        open(mark == Marks.NONE ? around : mark, mark);
        begins = true;
    }

    private void open(int owner, int owned) {
        if (blocks.size() >= DEEPEST) {
            ignored++;
            return;
        }
        blocks.push(block);
        block = new Block(owner, owned);
    }

    private void close(int at) {
        if (ignored > 0) {
            ignored--;
        } else if (!blocks.isEmpty()) {
            if (block.owned != Marks.NONE) {
                marks.end(block.owned, at);
            }
            block = blocks.pop();
        }
        chain = -1;
    }

    private void endStatement() {
        if (block.firstAssigned != Marks.NONE && block.brackets == 0) {
            for (int mark = block.firstAssigned; mark <= block.lastAssigned; mark++) {
                if (marks.parent(mark) == Marks.NONE && marks.kind(mark) != Kind.FUNCTION) {
                    marks.end(mark, lastEnd);
                }
            }
            block.firstAssigned = Marks.NONE;
            block.lastAssigned = Marks.NONE;
            block.assigned = Marks.NONE;
        }
        if (block.brackets == 0) {
            block.local = false;
            block.targets = false;
        }
        if (blocks.isEmpty()) {
            pending = 0;
        }
        chain = -1;
        localStart = -1;
    }

    @Override
    public void finish(int end) {
        while (!blocks.isEmpty()) {
            endStatement();
            close(lastEnd);
        }
        endStatement();
    }
}
