// Command errdoc finds exported functions and methods that return an error and whose comment
// says nothing of it: when it comes, or which it is. It prints one line for each and ends with
// status 1 if there is any. Methods that implement an interface and say so are left out: the
// interface says it.
package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
)

func main() {
	set := token.NewFileSet()
	found := 0
	for _, root := range os.Args[1:] {
		err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
				return err
			}
			file, err := parser.ParseFile(set, path, nil, parser.ParseComments|parser.SkipObjectResolution)
			if err != nil {
				return err
			}
			for _, name := range silent(file) {
				found++
				fmt.Printf("%s: the comment of %s does not say when it fails\n", set.Position(name.Pos()), name.Name)
			}
			return nil
		})
		if err != nil {
			fmt.Fprintln(os.Stderr, "errdoc:", err)
			os.Exit(2)
		}
	}
	if found > 0 {
		os.Exit(1)
	}
}

// says is what a comment that speaks of errors has in it.
var says = regexp.MustCompile(`(?i)\berrors?\b|\bErr[A-Z]\w*|\bfail(s|ed)?\b|\brefus(e|es|ed|al)\b|Refusal|\bimplements\b|\bDamaged\b|\bHalt\b`)

// silent are the names of the exported functions of a file that return an error and do not
// say so.
func silent(file *ast.File) (out []*ast.Ident) {
	for _, d := range file.Decls {
		f, ok := d.(*ast.FuncDecl)
		if ok && f.Name.IsExported() && returnsError(f) && !says.MatchString(f.Doc.Text()) {
			out = append(out, f.Name)
		}
	}
	return out
}

func returnsError(f *ast.FuncDecl) bool {
	if f.Type.Results == nil {
		return false
	}
	list := f.Type.Results.List
	last, ok := list[len(list)-1].Type.(*ast.Ident)
	return ok && last.Name == "error"
}
