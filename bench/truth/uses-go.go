// What each name in the Go files below a folder means, as go/types says. Needs Go; packages are found below GOPATH and GOROOT.
//
//	U path line column name path line column kind    a use, and what it is of: a method, a function or a field below the folder
//	E path line column                               a name that means something else
package main

import (
	"bufio"
	"fmt"
	"go/ast"
	"go/build"
	"go/parser"
	"go/token"
	"go/types"
	"os"
	"path/filepath"
	"strings"
	"unicode/utf16"
)

var (
	files    = token.NewFileSet()
	packages = map[string]*types.Package{}
	info     = &types.Info{
		Uses: map[*ast.Ident]types.Object{}, Defs: map[*ast.Ident]types.Object{},
	}
	lines = map[string][]string{}
	root  string
)

type found struct{}

func (found) Import(path string) (*types.Package, error) { return found{}.ImportFrom(path, root, 0) }

func (found) ImportFrom(path, folder string, _ types.ImportMode) (*types.Package, error) {
	if path == "unsafe" {
		return types.Unsafe, nil
	}
	one, err := build.Import(path, folder, 0)
	if err != nil {
		return nil, err
	}
	return check(one)
}

func check(one *build.Package) (*types.Package, error) {
	if real, err := filepath.EvalSymlinks(one.Dir); err == nil {
		one.Dir = real // one package, by whatever way it is reached
	}
	if known, ok := packages[one.Dir]; ok {
		if known == nil {
			return nil, fmt.Errorf("import cycle")
		}
		return known, nil
	}
	packages[one.Dir] = nil
	var parsed []*ast.File
	for _, name := range append(append([]string{}, one.GoFiles...), one.CgoFiles...) {
		file, err := parser.ParseFile(files, filepath.Join(one.Dir, name), nil, parser.SkipObjectResolution)
		if err == nil {
			parsed = append(parsed, file)
		}
	}
	config := types.Config{Importer: found{}, Error: func(error) {}, FakeImportC: true}
	checked, err := config.Check(one.ImportPath, files, parsed, info)
	packages[one.Dir] = checked
	if checked == nil {
		return nil, err
	}
	return checked, nil
}

func place(at token.Pos) (string, bool) {
	position := files.Position(at)
	if !strings.HasPrefix(position.Filename, root+"/") {
		return "", false
	}
	all, ok := lines[position.Filename]
	if !ok {
		text, _ := os.ReadFile(position.Filename)
		all = strings.Split(string(text), "\n")
		lines[position.Filename] = all
	}
	before := all[position.Line-1][:position.Column-1]
	return fmt.Sprintf("%s\t%d\t%d", position.Filename[len(root)+1:], position.Line, len(utf16.Encode([]rune(before)))+1), true
}

func main() {
	os.Setenv("GO111MODULE", "off") // packages as folders: nothing is fetched
	root, _ = filepath.Abs(os.Args[1])
	if real, err := filepath.EvalSymlinks(root); err == nil {
		root = real
	}
	out := bufio.NewWriter(os.Stdout)
	defer out.Flush()
	filepath.Walk(root, func(path string, entry os.FileInfo, err error) error {
		if err != nil || !entry.IsDir() {
			return nil
		}
		if entry.Name() == "testdata" {
			return filepath.SkipDir
		}
		if one, err := build.ImportDir(path, 0); err == nil {
			check(one)
		}
		return nil
	})
	for name, object := range info.Defs {
		if variable, ok := object.(*types.Var); ok && !variable.IsField() {
			if at, ok := place(name.Pos()); ok {
				fmt.Fprintf(out, "E\t%s\n", at)
			}
		}
	}
	for name, object := range info.Uses {
		at, ok := place(name.Pos())
		if !ok {
			continue
		}
		kind := ""
		switch one := object.(type) {
		case *types.Func:
			object = one.Origin()
			kind = "function"
			if one.Type().(*types.Signature).Recv() != nil {
				kind = "method"
			}
		case *types.Var:
			object = one.Origin()
			if one.IsField() {
				kind = "field"
			}
		}
		if declared, ok := place(object.Pos()); ok && kind != "" && object.Pos().IsValid() && object.Name() == name.Name {
			fmt.Fprintf(out, "U\t%s\t%s\t%s\t%s\n", at, name.Name, declared, kind)
		} else {
			fmt.Fprintf(out, "E\t%s\n", at)
		}
	}
}
