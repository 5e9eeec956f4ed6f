// Package format lists the formats of drawings that are read and written: a new one is one
// package and one entry here. It stands on the packages of the formats; app, server and the
// page read its list.
package format

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"path"
	"slices"
	"strings"

	"sectilis/core/document/exchange"
	"sectilis/core/format/dxf"
	"sectilis/core/format/hpgl"
	"sectilis/core/format/svg"
	"sectilis/core/ground/wording"
	"sectilis/core/production/cut"
	"sectilis/core/production/sheet"
)

// Format is a format of drawings. Read and Write are nil where that is not done.
type Format struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Extensions of its files, with the dot, lower case; the first is given to new files.
	Extensions []string `json:"extensions"`
	MIME       string   `json:"mime"`
	// Units are the units that a drawing may be in which does not say, in mm.
	Units map[string]float64 `json:"-"`
	// Read reads a drawing, and ends with the context. The error is a sentence for people.
	Read func(ctx context.Context, raw []byte, as Reading) (exchange.Drawing, error) `json:"-"`
	// Write writes a drawing under a title. The error is that of w.
	Write func(w io.Writer, d exchange.Drawing, title string) error `json:"-"`
	// run writes the passes of a sheet; nil where its lines are written as a drawing.
	run func(w io.Writer, f SheetFile) error
	// looks reports whether the bytes are of the format, whatever the file is called; nil
	// where that cannot be told.
	looks func(raw []byte) bool
}

// SheetFile is what a file of a sheet is written of: the sheet and how it is cut.
type SheetFile struct {
	Sheet  sheet.Sheet
	Passes []cut.Pass
}

// WriteSheet writes the lines of a sheet by role, or its run where the format has runs. The
// error is that of w.
func (f Format) WriteSheet(w io.Writer, s SheetFile) error {
	if f.run != nil {
		return f.run(w, s)
	}
	return f.Write(w, s.Sheet.Drawing(), fmt.Sprintf("Sheet %d, %s", s.Sheet.Number, s.Sheet.Stock.Name))
}

// Reading is how a drawing is read: the unit of one that does not say, "" for none, and the
// typefaces that its words are set in.
type Reading struct {
	Unit  string
	Faces svg.Faces
}

var all = []Format{
	{
		ID: "svg", Name: "SVG", Extensions: []string{".svg"}, MIME: "image/svg+xml",
		Read: func(ctx context.Context, raw []byte, as Reading) (exchange.Drawing, error) {
			return svg.Read(ctx, raw, as.Faces)
		},
		Write: svg.Write,
		looks: func(raw []byte) bool { return bytes.Contains(raw[:min(len(raw), 1000)], []byte("<svg")) },
	},
	{
		ID: "dxf", Name: "DXF", Extensions: []string{".dxf"}, MIME: "image/vnd.dxf", Units: dxf.Units,
		Read: func(ctx context.Context, raw []byte, as Reading) (exchange.Drawing, error) {
			return dxf.Read(ctx, raw, as.Unit)
		},
		Write: func(w io.Writer, d exchange.Drawing, _ string) error { return dxf.Write(w, d) },
	},
	{
		ID: "hpgl", Name: "HP-GL", Extensions: []string{".hpgl", ".plt", ".hgl"}, MIME: "application/vnd.hp-hpgl",
		Read: func(ctx context.Context, raw []byte, _ Reading) (exchange.Drawing, error) {
			return hpgl.Read(ctx, raw)
		},
		Write: func(w io.Writer, d exchange.Drawing, _ string) error { return hpgl.WriteDrawing(w, d) },
		run:   func(w io.Writer, f SheetFile) error { return hpgl.Write(w, f.Passes, f.Sheet.Size.Height) },
	},
}

// All lists the formats.
func All() []Format { return slices.Clone(all) }

// ByID returns the format with the id.
func ByID(id string) (Format, bool) {
	i := slices.IndexFunc(all, func(f Format) bool { return f.ID == id })
	if i < 0 {
		return Format{}, false
	}
	return all[i], true
}

// Of returns the format that a file can be read in, by what is in it or else by its name.
// The error is a sentence that names the formats that are read.
func Of(name string, raw []byte) (Format, error) {
	for _, f := range all {
		if f.Read != nil && f.looks != nil && f.looks(raw) {
			return f, nil
		}
	}
	ext := strings.ToLower(path.Ext(name))
	for _, f := range all {
		if f.Read != nil && slices.Contains(f.Extensions, ext) {
			return f, nil
		}
	}
	return Format{}, fmt.Errorf("“%s” is no drawing that is read here. There are %s", name, names())
}

// names are the names of the formats that are read, as a sentence ends with them.
func names() string {
	var out []string
	for _, f := range all {
		if f.Read != nil {
			out = append(out, f.Name)
		}
	}
	return wording.And(out) + "."
}
