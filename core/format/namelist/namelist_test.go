package namelist_test

import (
	"archive/zip"
	"bytes"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/xuri/excelize/v2"
	"golang.org/x/text/encoding/japanese"
	"golang.org/x/text/encoding/unicode"

	"sectilis/core/document/card"
	"sectilis/core/format/namelist"
)

func TestListsAreReadFromText(t *testing.T) {
	utf16, err := unicode.UTF16(unicode.LittleEndian, unicode.UseBOM).NewEncoder().Bytes([]byte("Name\tPlot\nNoor Håldane\t2\n"))
	require.NoError(t, err)
	for _, c := range []struct {
		name, raw string
		headings  bool
		rows      [][]string
	}{
		{"commas", "Name,Plot\nOdalys Fernsby,plot 14\n", true, [][]string{{"Name", "Plot"}, {"Odalys Fernsby", "plot 14"}}},
		{"semicolons with commas within", "Reed, Ptolemy;plot 9\r\nDove, Araminta;plot 31\r\n", false, [][]string{{"Reed, Ptolemy", "plot 9"}, {"Dove, Araminta", "plot 31"}}},
		{"tabs, as pasted", "Casimir Vane\t12\nHyacinth Olderby\t5", false, [][]string{{"Casimir Vane", "12"}, {"Hyacinth Olderby", "5"}}},
		{"one column", "Casimir Vane\n\nNoor Haldane\n", false, [][]string{{"Casimir Vane"}, {"Noor Haldane"}}},
		{"figures below a word", "Who,Nr\nCasimir Vane,12\nNoor Haldane,2", true, [][]string{{"Who", "Nr"}, {"Casimir Vane", "12"}, {"Noor Haldane", "2"}}},
		{"quotes and lines within", "\"Vane,\n Casimir\",12\nNoor,2\n", false, [][]string{{"Vane, Casimir", "12"}, {"Noor", "2"}}},
		{"a mark of UTF-8", "\xef\xbb\xbfname\nNoor", true, [][]string{{"name"}, {"Noor"}}},
		{"UTF-16", string(utf16), true, [][]string{{"Name", "Plot"}, {"Noor Håldane", "2"}}},
		{"Windows-1252", "Ren\xe9e Strake,plot 1\nNo\xebl Peck,plot 3", false, [][]string{{"Renée Strake", "plot 1"}, {"Noël Peck", "plot 3"}}},
		{"rows of other lengths", "Name,Plot,Guest\nNoor\nVane,12,,\n", true, [][]string{{"Name", "Plot", "Guest"}, {"Noor", "", ""}, {"Vane", "12", ""}}},
		{"a name that is a word for a column", "First,Last\nFirst,Peck", true, [][]string{{"First", "Last"}, {"First", "Peck"}}},
	} {
		t.Run(c.name, func(t *testing.T) {
			l, err := namelist.Read([]byte(c.raw), "")
			require.NoError(t, err)
			assert.Equal(t, c.rows, l.Rows)
			assert.Equal(t, c.headings, l.Headings)
		})
	}
}

func book(t *testing.T, sheets map[string][][]any) []byte {
	t.Helper()
	f := excelize.NewFile()
	for name, rows := range sheets {
		_, err := f.NewSheet(name)
		require.NoError(t, err)
		for i, row := range rows {
			at, err := excelize.CoordinatesToCellName(1, i+1)
			require.NoError(t, err)
			require.NoError(t, f.SetSheetRow(name, at, &row))
		}
	}
	var b bytes.Buffer
	require.NoError(t, f.Write(&b))
	return b.Bytes()
}

func TestListsAreReadFromWorkbooks(t *testing.T) {
	// The first sheet is empty.
	l, err := namelist.Read(book(t, map[string][][]any{"Members": {{"Name", "Plot"}, {"Odalys Fernsby", 14}, {}, {"Wilhelmina Tock", 3}}}), "")
	require.NoError(t, err)
	assert.Equal(t, [][]string{{"Name", "Plot"}, {"Odalys Fernsby", "14"}, {"Wilhelmina Tock", "3"}}, l.Rows)
	assert.True(t, l.Headings)
}

// A list that begins far down, dates and sums, and cells far to the right are read for what they show.
func TestOddWorkbooksAreRead(t *testing.T) {
	f := excelize.NewFile()
	for at, v := range map[string]any{"A5000": "Name", "B5000": "Born", "A5001": "Noor", "B5001": 2 + 0.5, "A5003": true} {
		require.NoError(t, f.SetCellValue("Sheet1", at, v))
	}
	require.NoError(t, f.SetCellFormula("Sheet1", "C5001", "=1+1"))
	var b bytes.Buffer
	require.NoError(t, f.Write(&b))
	l, err := namelist.Read(b.Bytes(), "")
	require.NoError(t, err)
	assert.Equal(t, [][]string{{"Name", "Born"}, {"Noor", "2.5"}, {"TRUE", ""}}, l.Rows)

	require.NoError(t, f.SetCellValue("Sheet1", "XFD5001", "far"))
	b.Reset()
	require.NoError(t, f.Write(&b))
	_, err = namelist.Read(b.Bytes(), "")
	require.ErrorContains(t, err, "too broad")
}

// A small file that unpacks to far more than it may is refused before it is.
func TestAWorkbookThatUnpacksToTooMuchIsRefused(t *testing.T) {
	sound, err := zip.NewReader(bytes.NewReader(book(t, map[string][][]any{"Members": {{"Odalys"}}})), int64(len(book(t, map[string][][]any{"Members": {{"Odalys"}}}))))
	require.NoError(t, err)
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, part := range sound.File {
		out, err := w.Create(part.Name)
		require.NoError(t, err)
		in, err := part.Open()
		require.NoError(t, err)
		_, err = io.Copy(out, in)
		require.NoError(t, err)
		if strings.Contains(part.Name, "sharedStrings") {
			_, err = io.Copy(out, io.LimitReader(spaces{}, 200<<20))
			require.NoError(t, err)
		}
	}
	require.NoError(t, w.Close())
	require.Less(t, b.Len(), 8<<20)
	_, err = namelist.Read(b.Bytes(), "")
	var refusal *card.Refusal
	require.ErrorAs(t, err, &refusal)
}

// spaces are without end.
type spaces struct{}

func (spaces) Read(p []byte) (int, error) {
	for i := range p {
		p[i] = ' '
	}
	return len(p), nil
}

func TestWhatIsNoListIsRefused(t *testing.T) {
	sound := book(t, map[string][][]any{"Members": {{"Odalys"}}})
	for name, raw := range map[string]string{
		"nothing": "", "empty rows": "\n ;\n;;\n", "a picture": "\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR", "half a workbook": string(sound[:len(sound)/2]),
		"no workbook": "PK\x03\x04 and more", "too many rows": strings.Repeat("Noor\n", 5*card.MaxNames+1), "too wide": strings.Repeat("a,", 60) + "b",
		"too large": strings.Repeat("Noor Haldane\n", 800_000),
	} {
		_, err := namelist.Read([]byte(raw), "")
		var refusal *card.Refusal
		require.ErrorAs(t, err, &refusal, name)
		assert.Equal(t, "file", refusal.Field, name)
	}
}

func TestColumnsAreNamed(t *testing.T) {
	l := namelist.List{Rows: [][]string{{"Who", "", "Who"}, {"Noor", "2", "3"}}}
	assert.Equal(t, card.SetNames{From: "m.csv", Columns: []string{"Who", "Column 2", "Who 2"}, Rows: [][]string{{"Noor", "2", "3"}}}, l.Names("m.csv", true))
	assert.Equal(t, card.SetNames{Columns: []string{"Name", "Column 2", "Column 3"}, Rows: l.Rows}, l.Names("", false))
}

func FuzzRead(f *testing.F) {
	f.Add([]byte("Name,Plot\nOdalys,14"))
	f.Add([]byte("\xff\xfeN\x00"))
	f.Add([]byte("PK\x03\x04"))
	f.Add([]byte("\"a\"b\";c"))
	f.Fuzz(func(t *testing.T, raw []byte) {
		l, err := namelist.Read(raw, "")
		if err != nil {
			var refusal *card.Refusal
			require.ErrorAs(t, err, &refusal)
			return
		}
		require.NotEmpty(t, l.Rows)
		for _, row := range l.Rows {
			require.Len(t, row, len(l.Rows[0]))
		}
		names := l.Names("", l.Headings)
		require.Len(t, names.Columns, len(l.Rows[0]))
	})
}

// Letters that are not Unicode are told, and may be read by other ones.
func TestLettersAreFoundOrAskedFor(t *testing.T) {
	text := strings.Repeat("名前,席\n佐藤 花子,三\n鈴木 一郎,五\n高橋 さくら,八\n", 3)
	raw, err := japanese.ShiftJIS.NewEncoder().String(text)
	require.NoError(t, err)
	l, err := namelist.Read([]byte(raw), "")
	require.NoError(t, err)
	assert.Equal(t, "shift_jis", l.Encoding)
	assert.Equal(t, []string{"佐藤 花子", "三"}, l.Rows[1])
	l, err = namelist.Read([]byte("Ren\xe9e Strake\nNo\xebl Peck"), "")
	require.NoError(t, err)
	assert.Equal(t, "windows-1252", l.Encoding)
	l, err = namelist.Read([]byte("\x8aimon \xc8ern\xfd\nNoor"), "windows-1250")
	require.NoError(t, err)
	assert.Equal(t, "Šimon Černý", l.Rows[0][0])
	l, err = namelist.Read([]byte("Renée\nNoor"), "")
	require.NoError(t, err)
	assert.Empty(t, l.Encoding)
	for _, name := range namelist.Encodings() {
		_, err = namelist.Read([]byte("Noor\nIda"), name)
		assert.NoError(t, err, name)
	}
	_, err = namelist.Read([]byte("Noor\nIda"), "klingon")
	assert.ErrorContains(t, err, "no letters of the kind")
}

func TestBusinessCardsAreNames(t *testing.T) {
	raw := "BEGIN:VCARD\r\nVERSION:3.0\r\nN:Fernsby;Odalys;;;\r\nFN:Odalys Fernsby\r\nEMAIL:odalys@plum.example\r\nEND:VCARD\r\n" +
		"BEGIN:VCARD\r\nVERSION:3.0\r\nN:Vane;Casimir;;;\r\nFN:Casimir Vane\r\nEND:VCARD\r\n"
	l, err := namelist.Read([]byte(raw), "")
	require.NoError(t, err)
	assert.True(t, l.Headings)
	assert.Equal(t, [][]string{{"Name", "First name", "Last name", "Email"}, {"Odalys Fernsby", "Odalys", "Fernsby", "odalys@plum.example"}, {"Casimir Vane", "Casimir", "Vane", ""}}, l.Rows)
	_, err = namelist.Read([]byte("BEGIN:VCARD\nVERSION:3.0\nno colon"), "")
	assert.ErrorContains(t, err, "business cards")
}

// What a spreadsheet would work out goes out guarded, and comes in as it was.
func TestFormulasAreNamesOnly(t *testing.T) {
	for _, cell := range []string{"=1+1", "+44 20", "-x", "@sum", "Noor", "'n", "O'Hara", ""} {
		out := namelist.Guarded(cell)
		assert.False(t, out != "" && strings.ContainsRune("=+-@", rune(out[0])), out)
		l, err := namelist.Read([]byte("Name\n\""+out+"x\"\n"), "")
		require.NoError(t, err)
		assert.Equal(t, cell+"x", l.Rows[1][0])
	}
}
