package dev.oddbeacon.client;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** What a reader in the terminal shows, and where one is in it. For one thread. */
final class BrowseState {
    private BrowseQuest quest;
    private int caret; // in the text that is being edited
    private boolean editsScope;
    private List<BrowseItem> items = List.of();
    private final Set<BrowseItem> chosen = new LinkedHashSet<>();
    private int current;
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
        return editsScope ? quest.scope() : quest.text();
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
        return chosen.contains(item);
    }

    /** What one leaves with: the chosen ones, or else the current one. */
    List<BrowseItem> taken() {
        return chosen.isEmpty() ? item().stream().toList() : List.copyOf(chosen);
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
        quest = changed;
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
        quest = editsScope ? quest.withScope(text) : quest.withText(text);
        caret = newCaret;
    }

    void switchEdited() {
        editsScope = !editsScope;
        caret = edited().length();
    }

    void move(int by) {
        current = Math.clamp((long) current + by, 0, Math.max(0, items.size() - 1));
        scrolled = 0;
    }

    /** To the first hit of the next file, or of the one before. */
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
        return items.get(a).repository().equals(items.get(b).repository()) && items.get(a).path().equals(items.get(b).path());
    }

    void scroll(int by) {
        scrolled += by;
    }

    void choose() {
        item().ifPresent(item -> {
            if (!chosen.remove(item)) {
                chosen.add(item);
            }
            move(1);
        });
    }

    void found(List<BrowseItem> found, String words) {
        items = List.copyOf(found);
        summary = words;
        problem = "";
        current = 0;
        scrolled = 0;
    }

    void more(List<BrowseItem> found) {
        List<BrowseItem> all = new ArrayList<>(items);
        all.addAll(found);
        items = List.copyOf(all);
    }

    /** The question could not be answered; what was found before stays. */
    void failed(String message) {
        problem = message;
    }
}
