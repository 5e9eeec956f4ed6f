package format_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/document/exchange"
	"sectilis/core/format"
	"sectilis/core/ground/geom"
)

func TestAFormatIsToldByWhatIsInAFileOrByItsName(t *testing.T) {
	for name, want := range map[string]string{"a.svg": "svg", "A.DXF": "dxf", "b.plt": "hpgl", "b.hgl": "hpgl", "b.HPGL": "hpgl"} {
		f, err := format.Of(name, []byte("x"))
		require.NoError(t, err, name)
		assert.Equal(t, want, f.ID, name)
	}
	f, err := format.Of("drawing.dxf", []byte("<?xml version='1.0'?><svg/>"))
	require.NoError(t, err)
	assert.Equal(t, "svg", f.ID, "what is in it comes before its name")
	for _, name := range []string{"a.txt", "svg", "", "a.svg.exe"} {
		_, err := format.Of(name, []byte("x"))
		assert.EqualError(t, err, "“"+name+"” is no drawing that is read here. There are SVG, DXF and HP-GL.")
	}
	_, ok := format.ByID("doc")
	assert.False(t, ok)
}

// What a format writes, the same format reads: an outline in its place and size.
func TestEveryFormatReadsWhatItWrites(t *testing.T) {
	path, err := geom.ParsePath("M10 10H40V30H10z")
	require.NoError(t, err)
	for _, f := range format.All() {
		require.NotEmpty(t, f.Extensions, f.ID)
		again, ok := format.ByID(f.ID)
		require.True(t, ok)
		assert.Equal(t, f.Name, again.Name)
		if f.Read == nil || f.Write == nil {
			continue
		}
		d := exchange.Drawing{Width: 60, Height: 50, Shapes: []exchange.Shape{{Path: path, Role: "cut"}}}
		var b bytes.Buffer
		require.NoError(t, f.Write(&b, d, "A box"), f.ID)
		got, err := f.Read(t.Context(), b.Bytes(), format.Reading{Unit: "mm"})
		require.NoError(t, err, f.ID)
		require.NotEmpty(t, got.Shapes, f.ID)
		box := got.Shapes[0].Path.Bounds()
		assert.InDelta(t, 30, box.W, .06, f.ID)
		assert.InDelta(t, 20, box.H, .06, f.ID)
	}
}
