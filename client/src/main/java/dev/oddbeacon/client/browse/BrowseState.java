package dev.oddbeacon.client.browse;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** The state of the reader in the terminal: the results, and the current place in them. For one thread. */
final class BrowseState {
    private BrowseQuest quest;
    private int caret; // in the text that is being edited
    private boolean editsScope;
    private String draft = ""; // of the scope, while it is edited
    private List<BrowseItem> items = List.of();
    private final Map<BrowseItem.Place, BrowseItem> chosen =
            new LinkedHashMap<>(); // in the order of choosing; a place once, whatever found it
    private int current;
    private boolean hasMoved; // since the question was changed
    private int scrolled; // lines by which the code is moved from where its hit would stand
    private String summary = "";
    private String problem = "";

    BrowseState(BrowseQuest quest) {
        this.quest = quest;
        this.caret = quest.text().length();
    }

    BrowseQuest quest() {
        return quest;
    }

    boolean editsScope() {
        return editsScope;
    }

    /** The text that keys go to. */
    String edited() {
        return editsScope ? draft : quest.text();
    }

    int caret() {
        return caret;
    }

    List<BrowseItem> items() {
        return items;
    }

    int current() {
        return current;
    }

    Optional<BrowseItem> item() {
        return current < items.size() ? Optional.of(items.get(current)) : Optional.empty();
    }

    boolean isChosen(BrowseItem item) {
        return chosen.containsKey(item.place());
    }

    /** The result of leaving: the chosen ones, or else the current one. */
    List<BrowseItem> taken() {
        return chosen.isEmpty() ? item().stream().toList() : List.copyOf(chosen.values());
    }

    int chosenCount() {
        return chosen.size();
    }

    int scrolled() {
        return scrolled;
    }

    String summary() {
        return summary;
    }

    String problem() {
        return problem;
    }

    /** Another question; its answer comes later. */
    void ask(BrowseQuest changed) {
        change(changed);
        caret = Math.min(caret, edited().length());
    }

    void type(String characters) {
        edit(edited().substring(0, caret) + characters + edited().substring(caret), caret + characters.length());
    }

    void backspace() {
        if (caret > 0) {
            int from = edited().offsetByCodePoints(caret, -1);
            edit(edited().substring(0, from) + edited().substring(caret), from);
        }
    }

    void clear() {
        edit("", 0);
    }

    /** @param by characters to the right; to the left if negative */
    void moveCaret(int by) {
        boolean isPossible = by < 0 ? caret > 0 : caret < edited().length();
        caret = isPossible ? edited().offsetByCodePoints(caret, by) : caret;
    }

    private void edit(String text, int newCaret) {
        if (editsScope) {
            draft = text;
        } else {
            change(quest.withText(text));
        }
        caret = newCaret;
    }

    private void change(BrowseQuest changed) {
        hasMoved &= changed.equals(quest);
        quest = changed;
    }

    /** Begins to edit the scope, which is searched in once it is taken; or takes it. */
    void switchEdited() {
        if (editsScope) {
            takeScope();
        } else {
            draft = quest.scope();
            editsScope = true;
            caret = draft.length();
        }
    }

    /** Searches in the scope as it was edited. */
    void takeScope() {
        editsScope = false;
        change(quest.withScope(draft.strip()));
        caret = edited().length();
    }

    /** Leaves the scope as it was. */
    void dropScope() {
        editsScope = false;
        caret = edited().length();
    }

    void move(int by) {
        current = Math.clamp((long) current + by, 0, Math.max(0, items.size() - 1));
        scrolled = 0;
        hasMoved = true;
    }

    /** Moves to the first hit of the next or the previous file. */
    void moveFile(int by) {
        int at = current;
        while (at + by >= 0 && at + by < items.size()) {
            at += by;
            if (!isSameFile(at, current) && (at == 0 || !isSameFile(at, at - 1))) {
                move(at - current);
                return;
            }
        }
    }

    private boolean isSameFile(int a, int b) {
        return items.get(a).repository().equals(items.get(b).repository())
                && items.get(a).path().equals(items.get(b).path());
    }

    void scroll(int by) {
        scrolled += by;
    }

    void choose() {
        item().ifPresent(item -> {
            if (chosen.remove(item.place()) == null) {
                chosen.put(item.place(), item);
            }
            move(1);
        });
    }

    /**
     * The beginning of an answer. Who has moved since asking stays where they are, if that was found again.
     *
     * @param answered the question; an answer to another one than is asked now is passed over
     */
    void found(BrowseQuest answered, List<BrowseItem> found, String words) {
        if (!answered.equals(quest)) {
            return;
        }
        Optional<BrowseItem.Place> before = item().filter(_ -> hasMoved).map(BrowseItem::place);
        items = List.copyOf(found);
        summary = words;
        problem = "";
        int same = before.map(
                        place -> items.stream().map(BrowseItem::place).toList().indexOf(place))
                .orElse(-1);
        scrolled = same < 0 ? 0 : scrolled;
        current = Math.max(0, same);
    }

    /** Takes the next page of an answer. */
    void more(BrowseQuest answered, List<BrowseItem> found) {
        if (!answered.equals(quest)) {
            return;
        }
        List<BrowseItem> all = new ArrayList<>(items);
        all.addAll(found);
        items = List.copyOf(all);
    }

    /** The question could not be answered; what was found before stays. */
    void failed(BrowseQuest answered, String message) {
        if (answered.equals(quest)) {
            failed(message);
        }
    }

    /** Something else went wrong. */
    void failed(String message) {
        problem = message;
    }
}
