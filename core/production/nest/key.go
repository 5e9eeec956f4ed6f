package nest

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
)

// Key tells problems apart: the same key, the same answers.
func (p Problem) Key() string {
	h := sha256.New()
	fmt.Fprintf(h, "%v %d %v", p.Between, p.Seed, p.Sheets)
	for i := range p.Parts {
		part := &p.Parts[i]
		fmt.Fprintf(h, ";%d %s", part.Turning, part.Outline)
		if part.Fixed != nil {
			fmt.Fprintf(h, " %v", *part.Fixed)
		}
	}
	return hex.EncodeToString(h.Sum(nil)[:16])
}
