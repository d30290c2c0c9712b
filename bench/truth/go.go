// Writes what Go's own parser says of Go files, as DumpedTruth reads it: go run go.go FOLDER… >DUMP
package main

import (
	"bufio"
	"fmt"
	"go/ast"
	"go/parser"
	"go/scanner"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"unicode/utf8"
)

const unknown = "-"

type reader struct {
	out   *bufio.Writer
	files *token.FileSet
}

func (r *reader) line(at token.Pos) int {
	return r.files.PositionFor(at, false).Line
}

func (r *reader) declare(name *ast.Ident, end token.Pos, container string) {
	if name.Name == "_" {
		return
	}
	last := unknown
	if end.IsValid() {
		last = fmt.Sprint(r.line(end - 1))
	}
	fmt.Fprintf(r.out, "D\t%s\t%d\t%s\t%s\n", name.Name, r.line(name.Pos()), last, container)
}

// The type that a method belongs to: *plain[K, V] gives plain.
func receiver(function *ast.FuncDecl) string {
	if function.Recv == nil || len(function.Recv.List) == 0 {
		return ""
	}
	at := function.Recv.List[0].Type
	for {
		switch is := at.(type) {
		case *ast.StarExpr:
			at = is.X
		case *ast.ParenExpr:
			at = is.X
		case *ast.IndexExpr:
			at = is.X
		case *ast.IndexListExpr:
			at = is.X
		case *ast.Ident:
			return is.Name
		default:
			return unknown
		}
	}
}

// A type with its fields and methods; those of a type without a name, within a field, are not declarations.
func (r *reader) typed(spec *ast.TypeSpec, container string) {
	r.declare(spec.Name, spec.End(), container)
	within := spec.Name.Name
	if container != "" {
		within = unknown
	}
	var fields *ast.FieldList
	switch is := spec.Type.(type) {
	case *ast.StructType:
		fields = is.Fields
	case *ast.InterfaceType:
		fields = is.Methods
	}
	if fields == nil {
		return
	}
	for _, field := range fields.List {
		for _, name := range field.Names {
			r.declare(name, field.Type.End(), within)
		}
	}
}

func (r *reader) general(declaration *ast.GenDecl) {
	for _, spec := range declaration.Specs {
		switch is := spec.(type) {
		case *ast.TypeSpec:
			r.typed(is, "")
		case *ast.ValueSpec:
			for _, name := range is.Names {
				r.declare(name, token.NoPos, "")
			}
		}
	}
}

// Types that are declared within functions.
func (r *reader) inside(body ast.Node) {
	ast.Inspect(body, func(node ast.Node) bool {
		if spec, is := node.(*ast.TypeSpec); is {
			r.typed(spec, unknown)
		}
		return true
	})
}

func (r *reader) regions(path string, text []byte) {
	var scan scanner.Scanner
	file := token.NewFileSet().AddFile(path, -1, len(text))
	scan.Init(file, text, func(token.Position, string) {}, scanner.ScanComments)
	for {
		at, kind, literal := scan.Scan()
		from := file.Offset(at)
		switch kind {
		case token.EOF:
			return
		case token.COMMENT:
			fmt.Fprintf(r.out, "R\tcomment\t%d\t%d\n", from, from+len(literal))
		case token.STRING, token.CHAR:
			fmt.Fprintf(r.out, "R\tstring\t%d\t%d\n", from, from+len(literal))
		}
	}
}

func (r *reader) read(path string) {
	text, err := os.ReadFile(path)
	if err != nil || !utf8.Valid(text) || strings.ContainsRune(string(text), '\r') {
		return
	}
	r.files = token.NewFileSet()
	tree, err := parser.ParseFile(r.files, path, text, parser.SkipObjectResolution)
	if err != nil {
		return
	}
	fmt.Fprintf(r.out, "F\t%s\n", path)
	for _, declaration := range tree.Decls {
		switch is := declaration.(type) {
		case *ast.FuncDecl:
			r.declare(is.Name, is.End(), receiver(is))
			if is.Body != nil {
				r.inside(is.Body)
			}
		case *ast.GenDecl:
			r.general(is)
			if is.Tok == token.VAR {
				for _, spec := range is.Specs {
					for _, value := range spec.(*ast.ValueSpec).Values {
						r.inside(value)
					}
				}
			}
		}
	}
	r.regions(path, text)
}

func main() {
	r := &reader{out: bufio.NewWriter(os.Stdout)}
	defer r.out.Flush()
	for _, folder := range os.Args[1:] {
		filepath.WalkDir(folder, func(path string, entry fs.DirEntry, err error) error {
			if err == nil && entry.Type().IsRegular() && strings.HasSuffix(path, ".go") {
				r.read(path)
			}
			return nil
		})
	}
}
