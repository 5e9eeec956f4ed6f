package layer_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sectilis/core/card"
	"sectilis/core/geom"
	"sectilis/core/layer"
)

// A triangle and its twin turned by half a turn have a mat each.
func TestTwinsDoNotShareAMat(t *testing.T) {
	var b geom.Builder
	p := b.Move(geom.Pt(-10, -7)).Line(geom.Pt(10, -7)).Line(geom.Pt(3, 9)).Close().Path()
	twin := p.Transform(geom.Scale(-1, -1))
	border := []card.Border{{Width: 3, Corner: card.Square}}
	layer.Mat(p, nil, border)
	of := layer.Mat(twin, nil, border)
	assert.Less(t, geom.Difference(geom.NonZero, twin, of).Area(), 1e-9, "the mat holds what lies on it")
}
