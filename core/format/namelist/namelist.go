// Package namelist reads lists of names from tables: text with separators (RFC 4180, with commas,
// semicolons or tabs) and workbooks (Office Open XML, ECMA-376).
package namelist

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strings"

	"github.com/xuri/excelize/v2"

	"sectilis/core/document/card"
)

// List is what was read: rows of as many cells each, without those that are empty.
type List struct {
	Rows [][]string `json:"rows"`
	// Headings says that the first row seems to name the columns.
	Headings bool `json:"headings"`
	// Encoding is how the letters of a text were told to be written, where that is not Unicode, by its
	// name in the Encoding Standard.
	Encoding string `json:"encoding,omitempty"`
}

// Bounds of what is read: bytes of text and of an unpacked workbook, rows and columns.
const (
	maxBytes   = 8 << 20
	maxUnzip   = 64 << 20
	maxRows    = 5 * card.MaxNames
	maxColumns = 2 * card.MaxColumns
	maxScanned = 100_000 // rows of a sheet that are looked at, empty ones too
)

// Read reads a list: a table, a workbook or business cards (vCard, RFC 6350). Letters that are not Unicode
// are written in an encoding, by its name in the Encoding Standard; "" finds it. It returns a *card.Refusal
// for what is no list, has nothing in it or is too large.
func Read(raw []byte, encoding string) (List, error) {
	if len(raw) > maxBytes {
		return List{}, card.Refuse("file", "A list is up to %d MB large.", maxBytes>>20)
	}
	var rows [][]string
	var err error
	if bytes.HasPrefix(raw, []byte("PK\x03\x04")) {
		rows, err = workbook(raw)
		encoding = ""
	} else {
		var s string
		if s, encoding, err = decoded(raw, encoding); err == nil {
			rows, err = text(s)
		}
	}
	if err != nil {
		return List{}, err
	}
	if rows, err = even(rows); err != nil {
		return List{}, err
	}
	return List{rows, headed(rows), encoding}, nil
}

// even makes rows of as many cells each; empty rows and the empty columns after the last are left out.
func even(rows [][]string) ([][]string, error) {
	wide := 0
	var out [][]string
	for _, row := range rows {
		last := 0
		for i := range row {
			row[i] = strings.Join(strings.Fields(row[i]), " ")
			if row[i] != "" {
				last = i + 1
			}
		}
		if last > 0 {
			out = append(out, row[:last])
			wide = max(wide, last)
		}
	}
	switch {
	case len(out) == 0:
		return nil, card.Refuse("file", "There is nothing in this list. A list has a row for each name.")
	case wide > maxColumns || len(out) > maxRows:
		return nil, card.Refuse("file", "This list is too long or too broad: a list has up to %d names in up to %d columns.", card.MaxNames, card.MaxColumns)
	}
	for i := range out {
		for len(out[i]) < wide {
			out[i] = append(out[i], "")
		}
	}
	return out, nil
}

// workbook is the first sheet of a workbook that has something in it.
func workbook(raw []byte) (rows [][]string, err error) {
	no := card.Refuse("file", "This workbook cannot be read. Save it as XLSX, or as text with commas (CSV).")
	defer func() {
		if recover() != nil { // of a file that is none
			rows, err = nil, no
		}
	}()
	f, err := excelize.OpenReader(bytes.NewReader(raw), excelize.Options{UnzipSizeLimit: maxUnzip, UnzipXMLSizeLimit: maxUnzip})
	if err != nil {
		return nil, no
	}
	defer func() { err = errors.Join(err, f.Close()) }()
	for _, name := range f.GetSheetList() {
		sheet, err := f.Rows(name)
		if err != nil {
			continue // a sheet of another kind, such as a chart
		}
		for n := 0; sheet.Next() && n < maxScanned && len(rows) <= maxRows; n++ {
			row, err := sheet.Columns()
			if err != nil {
				return nil, no
			}
			rows = kept(rows, row)
		}
		if err := sheet.Close(); err != nil {
			return nil, no
		}
		if len(rows) > 0 {
			break
		}
	}
	return rows, nil
}

// kept are rows with one more, if there is something in it; of a broad one as much as tells that it is too broad.
func kept(rows [][]string, row []string) [][]string {
	if something(row) {
		if beyond := row[min(len(row), maxColumns):]; something(beyond) {
			row = append(slices.Clone(row[:maxColumns]), "…")
		}
		rows = append(rows, slices.Clone(row[:min(len(row), maxColumns+1)]))
	}
	return rows
}

func something(row []string) bool {
	return slices.ContainsFunc(row, func(cell string) bool { return strings.TrimSpace(cell) != "" })
}

// text reads text with separators, or business cards.
func text(s string) ([][]string, error) {
	if strings.ContainsRune(s, 0) {
		return nil, card.Refuse("file", "This is no list. Bring in a table as CSV or XLSX, or paste it.")
	}
	if begin := strings.TrimSpace(s); len(begin) > 12 && strings.EqualFold(begin[:11], "BEGIN:VCARD") {
		return people(s)
	}
	rows, err := separated(s, separator(s))
	for _, row := range rows {
		for i, cell := range row {
			row[i] = unguarded(cell)
		}
	}
	return rows, err
}

// separator is what parts the cells of a text: that which gives the most columns, the same in most rows.
func separator(s string) rune {
	best, most := ',', 0
	for _, sep := range []rune{'\t', ';', ','} {
		counts := map[int]int{}
		for r, n := cells(s, sep), 0; n < 100; n++ {
			row, err := r.Read()
			if err != nil {
				break
			}
			counts[len(row)]++
		}
		for columns, n := range counts {
			if score := n * (columns - 1); score > most {
				best, most = sep, score
			}
		}
	}
	return best
}

func cells(s string, sep rune) *csv.Reader {
	r := csv.NewReader(strings.NewReader(s))
	r.Comma, r.LazyQuotes, r.FieldsPerRecord = sep, true, -1
	return r
}

func separated(s string, sep rune) ([][]string, error) {
	r := cells(s, sep)
	var rows [][]string
	for len(rows) <= maxRows {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			return nil, card.Refuse("file", "The list cannot be read: %v.", err)
		}
		rows = kept(rows, row)
	}
	return rows, nil
}

// words that name columns.
var words = []string{"name", "names", "first", "last", "given", "family", "surname", "guest", "guests", "partner", "title", "table", "seat", "place", "plot", "row", "party",
	"address", "street", "town", "city", "country", "postcode", "zip", "mail", "email", "phone", "picture", "photo", "colour", "color", "number", "no", "date", "day", "time"}

// headed reports whether the first row seems to name the columns: a word that does so stands in it, or
// figures stand in a column below it where it has none.
func headed(rows [][]string) bool {
	if len(rows) < 2 {
		return false
	}
	for i, cell := range rows[0] {
		for _, w := range strings.FieldsFunc(strings.ToLower(cell), func(r rune) bool { return r == ' ' || r == '-' || r == '_' || r == '.' }) {
			if slices.Contains(words, w) && !strings.ContainsAny(cell, "0123456789") && !slices.ContainsFunc(rows[1:], func(row []string) bool { return row[i] == cell }) {
				return true
			}
		}
		if cell != "" && !figures(cell) && !slices.ContainsFunc(rows[1:], func(row []string) bool { return !figures(row[i]) }) {
			return true
		}
	}
	return false
}

func figures(s string) bool {
	return s != "" && !strings.ContainsFunc(s, func(r rune) bool { return r < '0' || r > '9' })
}

// Names is the list as a command: with the first row naming the columns, or with columns of plain names.
func (l List) Names(from string, headings bool) card.SetNames {
	out := card.SetNames{From: from, Rows: l.Rows}
	heads := make([]string, len(l.Rows[0]))
	if headings {
		heads, out.Rows = l.Rows[0], l.Rows[1:]
	}
	for i, h := range heads {
		switch {
		case h != "":
		case i == 0:
			h = "Name"
		default:
			h = fmt.Sprintf("Column %d", i+1)
		}
		name := h
		for n := 2; slices.Contains(out.Columns, name); n++ {
			name = fmt.Sprintf("%s %d", h, n)
		}
		out.Columns = append(out.Columns, name)
	}
	return out
}
