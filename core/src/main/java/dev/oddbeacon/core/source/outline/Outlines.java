package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Lexer;
import java.util.List;
import java.util.function.Function;

/** Chooses how the declarations of a language are found. */
public final class Outlines {
    private Outlines() {}

    /**
     * The declarations of a text; regions and names are collected on the way.
     *
     * @param lexers by language
     */
    public static List<Declaration> of(Language language, byte[] text, Function<Language, Lexer> lexers, Found found) {
        Marks marks = new Marks(text);
        if (language.structure() == Language.Structure.MARKUP) {
            new MarkupOutline(text, language, marks, lexers, found).run();
        } else {
            part(language, text, 0, text.length, marks, lexers, found);
        }
        return marks.declarations();
    }

    /** A range of a text in one language. */
    static void part(
            Language language,
            byte[] text,
            int from,
            int to,
            Marks marks,
            Function<Language, Lexer> lexers,
            Found found) {
        Outline outline = switch (language.structure()) {
            case MEMBERS -> new MembersOutline(text, language, marks);
            case DECLARATORS -> new DeclaratorsOutline(text, language, marks);
            case KEYWORDS -> new KeywordOutline(text, language, marks);
            case SCRIPT -> new ScriptOutline(text, language, marks);
            case FIELDS_BY_TYPE -> new FieldsByTypeOutline(text, language, marks);
            case FIELDS_BY_COLON -> new FieldsByColonOutline(text, language, marks);
            case DOLLAR_FIELDS -> new DollarFieldsOutline(text, language, marks);
            case FIELDS_BY_WORD -> new FieldsByWordOutline(text, language, marks);
            case KOTLIN -> new KotlinOutline(text, language, marks);
            case INDENT -> new IndentOutline(text, marks);
            case LUA -> new LuaOutline(text, marks);
            case SCALA -> new ScalaOutline(text, marks);
            case RUBY -> new RubyOutline(text, marks);
            case SHELL -> new ShellOutline(text, marks);
            case STATEMENTS -> new StatementsOutline(text, language, marks);
            case SELECTORS -> new SelectorsOutline(text, language, marks);
            case LINES -> new LinesOutline(text, language, marks, found);
            case KEYS -> new KeysOutline(text, marks);
            case INDENTED_KEYS -> new IndentedKeysOutline(text, marks, found);
            case HEADINGS -> new HeadingsOutline(text, marks, found);
            case NONE, MARKUP -> _ -> {};
        };
        lexers.apply(language).run(text, from, to, outline, found);
        outline.finish(to);
    }
}
