package gamut

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
	"strings"
	"unicode"

	"github.com/kovidgoyal/imaging/prism/meta/icc"
	"github.com/lucasb-eyer/go-colorful"
)

// MostProfile is the largest colour profile that is read, bytes.
const MostProfile = 8 << 20

// Unfit is why a file is no profile to go by, as a sentence.
type Unfit string

func (u Unfit) Error() string { return string(u) }

// errDamaged is for a profile that begins as one and leads nowhere.
const errDamaged = Unfit("That profile is damaged: it cannot be read to its end. Bring it in from where it was made.")

// OpenProfile reads a colour profile (ICC.1:2022) after looking whether what it says of its own parts
// is true. It fails with an Unfit for what is no profile, is cut off or too large.
func OpenProfile(raw []byte) (p *icc.Profile, err error) {
	const head, entry, mostTags = 128, 12, 200
	if len(raw) < head+4 || string(raw[36:40]) != "acsp" {
		return nil, Unfit("That is no colour profile. Profiles of printers are files that end in .icc or .icm.")
	}
	if len(raw) > MostProfile {
		return nil, Unfit(fmt.Sprintf("That profile is larger than %d MB, which none of a printer is.", MostProfile>>20))
	}
	n := binary.BigEndian.Uint32(raw[head:])
	if n > mostTags || len(raw) < head+4+int(n)*entry {
		return nil, errDamaged
	}
	for i := range int(n) {
		at := raw[head+4+i*entry:]
		from, size := uint64(binary.BigEndian.Uint32(at[4:])), uint64(binary.BigEndian.Uint32(at[8:]))
		if from < uint64(head+4+int(n)*entry) || from+size > uint64(len(raw)) {
			return nil, errDamaged
		}
	}
	defer guarded(&err)
	if p, err = icc.DecodeProfile(bytes.NewReader(raw)); err != nil {
		return nil, errDamaged
	}
	return p, nil
}

// guarded takes a panic of the reader, whose tables may lead anywhere, for a damaged profile.
func guarded(err *error) {
	if recover() != nil {
		*err = errDamaged
	}
}

// kinds are what profiles are of that are not of printers.
var kinds = map[icc.DeviceClass]string{
	icc.DeviceClassDisplay: "a screen", icc.DeviceClassInput: "a scanner or a camera", icc.DeviceClassColorSpace: "a set of colours",
	icc.DeviceClassLink: "two devices at once", icc.DeviceClassAbstract: "an effect", icc.DeviceClassNamedColor: "named colours",
}

// OfProfile is the gamut of the profile of a printer, of red, green and blue or of four inks, and
// the name in it. What prints is read from its tables from inks to colours (A2B), what becomes of
// the rest from those the other way (B2A) where it has them. It fails with an Unfit for what is no
// profile of a printer.
func OfProfile(raw []byte) (g *Gamut, name string, err error) {
	p, err := OpenProfile(raw)
	if err != nil {
		return nil, "", err
	}
	defer guarded(&err)
	if p.Header.DeviceClass != icc.DeviceClassOutput {
		of := kinds[p.Header.DeviceClass]
		if of == "" {
			of = "something else"
		}
		return nil, "", Unfit(fmt.Sprintf("That profile is of %s, not of a printer. Look for one of your printer and paper.", of))
	}
	inks := map[icc.ColorSpace]int{icc.ColorSpaceRGB: 3, icc.ColorSpaceCMYK: 4}[p.Header.DataColorSpace]
	if inks == 0 {
		return nil, "", Unfit("That profile is of a printer without colours. One of red, green and blue or of four inks is needed.")
	}
	forth, err := p.CreateTransformerToPCS(icc.RelativeColorimetricRenderingIntent, inks, true)
	if err != nil {
		return nil, "", errDamaged
	}
	pr := &profiled{inks: inks, xyz: p.Header.ProfileConnectionSpace == icc.ColorSpaceXYZ, forth: forth}
	if back, err := p.CreateTransformerToDevice(icc.RelativeColorimetricRenderingIntent, false, true); err == nil {
		pr.back = back
	}
	if g, err = pr.gamut(); err != nil {
		return nil, "", err
	}
	name, _ = p.Description() // one without a name is called by its file
	return g, plain(name), nil
}

// plain is a name on one line that is not too long.
func plain(name string) string {
	name = strings.Join(strings.FieldsFunc(strings.ToValidUTF8(name, ""), func(r rune) bool { return !unicode.IsPrint(r) || unicode.IsSpace(r) }), " ")
	if r := []rune(name); len(r) > 80 {
		name = string(r[:80])
	}
	return name
}

// profiled is a printer as a profile has it. Colours are told under daylight (D65), as sRGB has
// them, those of the profile under D50.
type profiled struct {
	inks        int
	xyz         bool
	forth, back *icc.Pipeline
	ends        inks // its paper and its black
}

// seen is the colour that amounts of inks give.
func (p *profiled) seen(amounts []float64) lab {
	var in, out [4]float64 // both are written to
	copy(in[:], amounts)
	p.forth.TransformGeneral(out[:], in[:])
	c := [3]float64{out[0], out[1], out[2]}
	if !p.xyz {
		x, y, z := colorful.LabToXyzWhiteRef(c[0]/100, c[1]/100, c[2]/100, colorful.D50)
		c = [3]float64{x, y, z}
	}
	return labOf(times(toD65, c))
}

// amounts are those that the profile has for a colour.
func (p *profiled) amounts(c lab) []float64 {
	in := times(toD50, xyzOf(c))
	if !p.xyz {
		l, a, b := colorful.XyzToLabWhiteRef(in[0], in[1], in[2], colorful.D50)
		in = [3]float64{100 * l, 100 * a, 100 * b}
	}
	out := make([]float64, 4)
	p.back.TransformGeneral(out, []float64{in[0], in[1], in[2], 0})
	for i := range out {
		out[i] = min(max(out[i], 0), 1)
	}
	return out[:p.inks]
}

// gamut samples what the printer lays down. It returns errDamaged where that cannot be.
func (p *profiled) gamut() (*Gamut, error) {
	bare := []float64{1, 1, 1}
	if p.inks == 4 {
		bare = []float64{0, 0, 0, 0}
	}
	p.ends = inks{paper: p.seen(bare), k: lab{math.Inf(1)}}
	// The strongest colours have one ink at its end.
	var all []lab
	n := map[int]int{3: 41, 4: 21}[p.inks]
	at := make([]float64, p.inks)
	var sample func(i, held int)
	sample = func(i, held int) {
		if i == held {
			i++
		}
		if i >= p.inks {
			all = append(all, p.seen(at))
			return
		}
		for v := range n {
			at[i] = float64(v) / float64(n-1)
			sample(i+1, held)
		}
	}
	for held := range p.inks {
		for _, at[held] = range []float64{0, 1} {
			sample(0, held)
		}
	}
	for _, c := range all {
		if !(math.Abs(c[0])+math.Abs(c[1])+math.Abs(c[2]) < 1000) { // nor what is no number
			return nil, errDamaged
		}
		if c[0] < p.ends.k[0] {
			p.ends.k = c
		}
	}
	if p.back != nil { // the darkest that the printer would lay down, rather than all inks at once
		if c := p.seen(p.amounts(lab{})); c[0] < 60 {
			p.ends.k = c
		}
	}
	if p.ends.paper[0] < p.ends.k[0]+20 {
		return nil, errDamaged
	}
	g := &Gamut{}
	for _, c := range all {
		g.note(p.ends.relative(c))
	}
	if p.back != nil {
		g.lays = func(c colorful.Color) colorful.Color {
			l, a, b := c.Lab()
			out := p.ends.relative(p.seen(p.amounts(p.ends.absolute(lab{100 * l, 100 * a, 100 * b}))))
			return colorful.Lab(out[0]/100, out[1]/100, out[2]/100).Clamped()
		}
	}
	g.finish()
	return g, nil
}

// Bradford's adaptation of XYZ between D50 and D65 (ICC.1:2022, annex E).
var (
	toD65 = [3][3]float64{{.9555766, -.0230393, .0631636}, {-.0282895, 1.0099416, .0210077}, {.0122982, -.0204830, 1.3299098}}
	toD50 = [3][3]float64{{1.0478112, .0228866, -.0501270}, {.0295424, .9904844, -.0170491}, {-.0092345, .0150436, .7521316}}
)

func times(m [3][3]float64, v [3]float64) (out [3]float64) {
	for i, row := range m {
		out[i] = row[0]*v[0] + row[1]*v[1] + row[2]*v[2]
	}
	return out
}
