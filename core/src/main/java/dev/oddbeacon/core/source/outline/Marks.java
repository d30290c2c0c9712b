package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;

/** Collects declarations while a file is read: a name may come later than what stands inside. Offsets are bytes. */
final class Marks {
    static final int NONE = -1;

    private static final class Mark {
        private final int parent;
        private final int start;
        private Kind kind;
        private int nameStart = NONE;
        private int nameEnd;
        private int qualifierStart;
        private int qualifierEnd;
        private int headEnd;
        private int end;
        private int endsWith = NONE;

        Mark(Kind kind, int parent, int start) {
            this.kind = kind;
            this.parent = parent;
            this.start = start;
        }
    }

    private final byte[] text;
    private final List<Mark> marks = new ArrayList<>();
    private final Set<String> known = new HashSet<>();

    Marks(byte[] text) {
        this.text = text;
    }

    /** @return its number; it has no name yet */
    int add(Kind kind, int parent, int start) {
        marks.add(new Mark(kind, parent, start));
        return marks.size() - 1;
    }

    int add(Kind kind, int parent, int start, int nameStart, int nameEnd) {
        int mark = add(kind, parent, start);
        name(mark, nameStart, nameEnd);
        headEnd(mark, nameEnd);
        end(mark, nameEnd);
        return mark;
    }

    void name(int mark, int start, int end) {
        marks.get(mark).nameStart = start;
        marks.get(mark).nameEnd = end;
    }

    boolean hasName(int mark) {
        return marks.get(mark).nameStart != NONE;
    }

    /** Whether something in a mark has been given this name before; remembers that it has now. */
    boolean knows(int parent, int start, int end) {
        return !known.add(parent + " " + new String(text, start, end - start, StandardCharsets.ISO_8859_1));
    }

    /** Names what it belongs to, besides what it stands in: the A of {@code A::b}. */
    void qualifier(int mark, int start, int end) {
        marks.get(mark).qualifierStart = start;
        marks.get(mark).qualifierEnd = end;
    }

    /** {@code typedef struct {…} name;}: the type without a name before it gets the name. */
    void adopt(int name) {
        for (int i = name - 1; i >= 0 && marks.get(i).start >= marks.get(name).start; i--) {
            Mark mark = marks.get(i);
            if (mark.nameStart == NONE
                    && mark.start == marks.get(name).start
                    && mark.kind.isType()
                    && mark.parent == marks.get(name).parent) {
                if (marks.get(name).kind != Kind.TYPE) {
                    return; // fields of a variable belong to what is around
                }
                mark.nameStart = marks.get(name).nameStart;
                mark.nameEnd = marks.get(name).nameEnd;
                return;
            }
        }
    }

    void headEnd(int mark, int end) {
        marks.get(mark).headEnd = end;
    }

    void end(int mark, int end) {
        marks.get(mark).end = Math.max(marks.get(mark).end, end);
    }

    Kind kind(int mark) {
        return marks.get(mark).kind;
    }

    void kind(int mark, Kind kind) {
        marks.get(mark).kind = kind;
    }

    int parent(int mark) {
        return marks.get(mark).parent;
    }

    int start(int mark) {
        return marks.get(mark).start;
    }

    /** Makes a mark end where another one does. */
    void endsWith(int mark, int other) {
        marks.get(mark).endsWith = other;
    }

    /** Whether its name is the text in a range. */
    boolean isNamed(int mark, int start, int end) {
        Mark some = marks.get(mark);
        return some.nameStart != NONE && Arrays.equals(text, some.nameStart, some.nameEnd, text, start, end);
    }

    /** All that have a name, ordered by where their names stand. */
    List<Declaration> declarations() {
        int[] order = IntStream.range(0, marks.size())
                .filter(this::hasName)
                .boxed()
                .sorted(Comparator.comparingInt(i -> marks.get(i).nameStart))
                .mapToInt(i -> i)
                .toArray();
        int[] place = new int[marks.size()];
        Arrays.fill(place, NONE);
        int count = 0;
        int before = NONE;
        List<Mark> kept = new ArrayList<>(order.length);
        for (int mark : order) {
            if (marks.get(mark).nameStart != before) {
                before = marks.get(mark).nameStart;
                kept.add(marks.get(mark));
                place[mark] = count++;
            } else {
                place[mark] = count - 1;
            }
        }
        List<Declaration> result = new ArrayList<>(count);
        for (Mark mark : kept) {
            int parent = mark.parent;
            while (parent != NONE && !hasName(parent)) {
                parent = marks.get(parent).parent;
            }
            Mark last = mark;
            while (last.endsWith != NONE) {
                last = marks.get(last.endsWith);
            }
            int end = Math.max(last.end, mark.nameEnd);
            result.add(new Declaration(
                    mark.kind,
                    mark.nameStart,
                    mark.nameEnd,
                    mark.qualifierStart,
                    mark.qualifierEnd,
                    parent == NONE ? NONE : place[parent],
                    Math.min(mark.start, mark.nameStart),
                    Math.clamp(mark.headEnd, mark.nameEnd, end),
                    end));
        }
        return result;
    }
}
