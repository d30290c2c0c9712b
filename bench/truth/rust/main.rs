//! Writes what the crate syn says of Rust files, as DumpedTruth reads it: cargo run -- FOLDER… >DUMP
//! Needs the crates syn (1.0) and proc-macro2, from where cargo finds them.
use proc_macro2::{LineColumn, Span, TokenStream, TokenTree};
use std::path::Path;
use std::str::FromStr;
use syn::spanned::Spanned;
use syn::visit::{self, Visit};
use syn::{Block, Fields, Ident, ImplItem, Item, TraitItem, Type};

/// What a file declares; `path` names what holds it, `None` where that has no name.
#[derive(Default)]
struct Declarations {
    lines: Vec<String>,
    path: Vec<Option<String>>,
    in_code: bool,
}

impl Declarations {
    fn declare(&mut self, name: &Ident, whole: Option<Span>) {
        let container = match self.path.iter().cloned().collect::<Option<Vec<String>>>() {
            Some(parts) => parts.join("::"),
            None => "-".to_string(),
        };
        let end = whole.map_or("-".to_string(), |span| span.end().line.to_string());
        let text = name.to_string();
        if text == "_" {
            return;
        }
        let line = name.span().start().line;
        self.lines.push(format!("D\t{}\t{line}\t{end}\t{container}", text.trim_start_matches("r#")));
    }

    fn within(&mut self, name: Option<String>, inside: impl FnOnce(&mut Self)) {
        self.path.push(name.map(|some| some.trim_start_matches("r#").to_string()));
        inside(self);
        self.path.pop();
    }

    fn block(&mut self, name: &Ident, block: &Block) {
        let before = std::mem::replace(&mut self.in_code, true);
        self.within(Some(name.to_string()), |this| this.visit_block(block));
        self.in_code = before;
    }

    fn fields(&mut self, name: &Ident, fields: &Fields) {
        self.within(Some(name.to_string()), |this| {
            for field in fields {
                if let Some(ident) = &field.ident {
                    this.declare(ident, None);
                }
            }
        });
    }

    fn untold(&mut self, lines: Span) {
        self.lines.push(format!("X\t{}\t{}", lines.start().line, lines.end().line));
    }

    fn constant(&mut self, name: &Ident) {
        if !self.in_code {
            self.declare(name, None);
        }
    }
}

fn named(of: &Type) -> Option<String> {
    match of {
        Type::Path(path) => path.path.segments.last().map(|segment| segment.ident.to_string()),
        Type::Reference(reference) => named(&reference.elem),
        _ => None,
    }
}

impl<'ast> Visit<'ast> for Declarations {
    fn visit_item(&mut self, item: &'ast Item) {
        match item {
            Item::Fn(f) => {
                self.declare(&f.sig.ident, Some(f.span()));
                self.block(&f.sig.ident, &f.block);
            }
            Item::Struct(s) => {
                self.declare(&s.ident, Some(s.span()));
                self.fields(&s.ident, &s.fields);
            }
            Item::Union(u) => {
                self.declare(&u.ident, Some(u.span()));
                self.fields(&u.ident, &Fields::Named(u.fields.clone()));
            }
            Item::Enum(e) => {
                self.declare(&e.ident, Some(e.span()));
                self.within(Some(e.ident.to_string()), |this| {
                    for variant in &e.variants {
                        this.declare(&variant.ident, None);
                    }
                });
            }
            Item::Trait(t) => {
                self.declare(&t.ident, Some(t.span()));
                self.within(Some(t.ident.to_string()), |this| {
                    let before = std::mem::replace(&mut this.in_code, false);
                    visit::visit_item_trait(this, t);
                    this.in_code = before;
                });
            }
            Item::TraitAlias(t) => self.declare(&t.ident, None),
            Item::Impl(i) => self.within(named(&i.self_ty), |this| {
                let before = std::mem::replace(&mut this.in_code, false);
                visit::visit_item_impl(this, i);
                this.in_code = before;
            }),
            Item::Type(t) => self.declare(&t.ident, None),
            Item::Const(c) => {
                self.constant(&c.ident);
                visit::visit_item_const(self, c);
            }
            Item::Static(s) => {
                self.constant(&s.ident);
                visit::visit_item_static(self, s);
            }
            Item::Mod(m) => {
                self.declare(&m.ident, m.content.as_ref().map(|_| m.span()));
                self.within(Some(m.ident.to_string()), |this| visit::visit_item_mod(this, m));
            }
            Item::Macro(m) => match &m.ident {
                Some(name) => self.declare(name, None),
                None => visit::visit_item_macro(self, m),
            },
            Item::ForeignMod(f) => {
                for inside in &f.items {
                    match inside {
                        syn::ForeignItem::Fn(f) => self.declare(&f.sig.ident, Some(f.span())),
                        syn::ForeignItem::Static(s) => self.declare(&s.ident, None),
                        syn::ForeignItem::Type(t) => self.declare(&t.ident, None),
                        _ => {}
                    }
                }
            }
            Item::Verbatim(other) => self.untold(other.span()),
            _ => visit::visit_item(self, item),
        }
    }

    /// What a macro is given may be items, where items stand; where it is something else, nobody knows what that declares.
    fn visit_macro(&mut self, made: &'ast syn::Macro) {
        if self.in_code {
            return;
        }
        match syn::parse2::<syn::File>(made.tokens.clone()) {
            Ok(file) => file.items.iter().for_each(|item| self.visit_item(item)),
            Err(_) => self.untold(made.span()),
        }
    }

    fn visit_trait_item(&mut self, item: &'ast TraitItem) {
        match item {
            TraitItem::Method(m) => {
                self.declare(&m.sig.ident, Some(m.span()));
                if let Some(block) = &m.default {
                    self.block(&m.sig.ident, block);
                }
            }
            TraitItem::Const(c) => self.declare(&c.ident, None),
            TraitItem::Type(t) => self.declare(&t.ident, None),
            _ => visit::visit_trait_item(self, item),
        }
    }

    fn visit_impl_item(&mut self, item: &'ast ImplItem) {
        match item {
            ImplItem::Method(m) => {
                self.declare(&m.sig.ident, Some(m.span()));
                self.block(&m.sig.ident, &m.block);
            }
            ImplItem::Const(c) => self.declare(&c.ident, None),
            ImplItem::Type(t) => self.declare(&t.ident, None),
            _ => visit::visit_impl_item(self, item),
        }
    }
}

/// Comments and strings, as offsets in bytes.
struct Regions<'a> {
    text: &'a str,
    starts: Vec<usize>,
    lines: Vec<String>,
    last: usize,
}

impl Regions<'_> {
    fn offset(&self, at: LineColumn) -> usize {
        let line = self.starts[at.line - 1];
        self.text[line..].char_indices().nth(at.column).map_or(self.text.len(), |(i, _)| line + i)
    }

    fn region(&mut self, kind: &str, from: usize, to: usize) {
        self.lines.push(format!("R\t{kind}\t{from}\t{to}"));
    }

    /// What stands between two tokens is blank or a comment.
    fn token(&mut self, span: Span) -> (usize, usize) {
        let (from, to) = (self.offset(span.start()), self.offset(span.end()));
        self.gap(from);
        self.last = self.last.max(to);
        (from, to)
    }

    fn gap(&mut self, until: usize) {
        let mut at = self.last;
        while at < until {
            let rest = &self.text[at..until];
            if rest.starts_with("//") {
                let end = at + rest.find('\n').unwrap_or(rest.len());
                self.region("comment", at, end);
                at = end;
            } else if rest.starts_with("/*") {
                let mut depth = 0;
                let mut end = at;
                loop {
                    let here = &self.text[end..until];
                    if here.starts_with("/*") {
                        depth += 1;
                        end += 2;
                    } else if here.starts_with("*/") {
                        depth -= 1;
                        end += 2;
                    } else {
                        end += here.chars().next().map_or(1, char::len_utf8);
                    }
                    if depth == 0 || end >= until {
                        break;
                    }
                }
                self.region("comment", at, end.min(until));
                at = end;
            } else {
                at += rest.chars().next().map_or(1, char::len_utf8);
            }
        }
    }

    fn tokens(&mut self, tokens: TokenStream) {
        for token in tokens {
            match token {
                TokenTree::Group(group) => {
                    let text = &self.text[self.offset(group.span().start())..];
                    if text.starts_with("//") || text.starts_with("/*") {
                        continue; // a part of a comment for documentation
                    }
                    self.token(group.span_open());
                    self.tokens(group.stream());
                    self.token(group.span_close());
                }
                TokenTree::Literal(literal) => {
                    let (from, to) = self.token(literal.span());
                    let written = &self.text[from..to];
                    let bare = written.trim_start_matches(['b', 'r', '#']);
                    if bare.starts_with('"') || bare.starts_with('\'') {
                        self.region("string", from, to);
                    }
                }
                other => {
                    let (from, to) = (self.offset(other.span().start()), self.offset(other.span().end()));
                    if self.text[from..].starts_with("//") || self.text[from..].starts_with("/*") {
                        if matches!(&other, TokenTree::Punct(punct) if punct.as_char() == '#') {
                            self.gap(from);
                            self.region("comment", from, to);
                            self.last = self.last.max(to);
                        }
                    } else {
                        self.token(other.span());
                    }
                }
            }
        }
    }
}

fn read(path: &Path) {
    let Ok(text) = std::fs::read_to_string(path) else { return };
    if text.contains('\r') || text.starts_with('\u{feff}') || text.starts_with("#!") {
        return;
    }
    let Ok(tokens) = TokenStream::from_str(&text) else { return };
    let Ok(file) = syn::parse2::<syn::File>(tokens.clone()) else { return };
    let mut found = Declarations::default();
    found.visit_file(&file);
    let starts = std::iter::once(0).chain(text.match_indices('\n').map(|(i, _)| i + 1)).collect();
    let mut regions = Regions { text: &text, starts, lines: Vec::new(), last: 0 };
    regions.tokens(tokens);
    regions.gap(text.len());
    println!("F\t{}", path.display());
    found.lines.iter().chain(&regions.lines).for_each(|line| println!("{line}"));
}

fn walk(path: &Path) {
    if path.is_dir() && !path.is_symlink() {
        let mut inside: Vec<_> = std::fs::read_dir(path).unwrap().flatten().map(|entry| entry.path()).collect();
        inside.sort();
        inside.iter().for_each(|below| walk(below));
    } else if path.extension().is_some_and(|extension| extension == "rs") {
        read(path);
    }
}

fn main() {
    std::env::args().skip(1).for_each(|folder| walk(Path::new(&folder)));
}
