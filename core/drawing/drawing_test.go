package drawing_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sectilis/core/card"
	"sectilis/core/drawing"
	"sectilis/core/geom"
)

func path(t *testing.T, d string) geom.Path {
	t.Helper()
	p, err := geom.ParsePath(d)
	require.NoError(t, err)
	return p
}

func TestLooseLinesAreChained(t *testing.T) {
	got := drawing.Chain([]geom.Path{
		path(t, "M0 0L10 0"), path(t, "M10 10L10.001 0"), path(t, "M10 10L0 10"), path(t, "M0 0L0 10"), // a square
		path(t, "M50 0L60 0"), path(t, "M60 0Q70 0 70 10"), path(t, "M40 0L50 0"), // an open line
		path(t, "M80 0L90 0L90 9Z"), path(t, "M5 5"),
	}, .005)
	var data []string
	closed := 0
	for _, p := range got {
		data = append(data, p.String())
		if p.Closed() {
			closed++
		}
	}
	require.Len(t, got, 3, "%v", data)
	assert.Equal(t, 2, closed)
	assert.InDelta(t, 100, abs(got[1].Area()), .01)
	assert.Len(t, got[2].Curves()[0], 3)
}

func abs(v float64) float64 { return max(v, -v) }

func TestLayersNameTheirRole(t *testing.T) {
	for name, want := range map[string]card.Role{"Cut": card.RoleCut, "mountain_score": card.RoleMountain, " valley ": card.RoleValley, "kiss-cut": card.RoleKiss, "Layer 1": ""} {
		assert.Equal(t, want, drawing.RoleOf(name), name)
	}
}
