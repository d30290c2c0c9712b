package dev.oddbeacon.client.lsp;

import org.eclipse.lsp4j.SymbolKind;

/** Kinds of declarations in the protocol's words. */
final class Kinds {
    private Kinds() {}

    /** @param kind as the service names it; null for a use */
    static SymbolKind of(String kind) {
        return switch (kind == null ? "" : kind) {
            case "namespace" -> SymbolKind.Namespace;
            case "class", "record", "object", "table" -> SymbolKind.Class;
            case "interface", "trait" -> SymbolKind.Interface;
            case "struct", "union", "view" -> SymbolKind.Struct;
            case "enum" -> SymbolKind.Enum;
            case "type" -> SymbolKind.TypeParameter;
            case "function", "prototype", "macro", "target", "stage" -> SymbolKind.Function;
            case "method" -> SymbolKind.Method;
            case "constructor" -> SymbolKind.Constructor;
            case "field" -> SymbolKind.Field;
            case "constant" -> SymbolKind.Constant;
            case "key", "index", "id", "selector" -> SymbolKind.Key;
            case "heading" -> SymbolKind.String;
            default -> SymbolKind.Variable;
        };
    }
}
