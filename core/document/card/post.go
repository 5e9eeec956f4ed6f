package card

import "slices"

// Post is a class of post: the longest side, the other and the thickness of what it takes, mm, and its
// weight, g. What is sent is described by the same measures.
type Post struct {
	Name   string  `json:"name"`
	Width  float64 `json:"width"`
	Height float64 `json:"height"`
	Thick  float64 `json:"thick"`
	Weight float64 `json:"weight"`
	// Oblong says that what is square costs more, or is not taken: one side is at least 1.3 times the
	// other.
	Oblong bool `json:"oblong,omitempty"`
}

// UsualPosts are classes of post until a person says what hers are.
func UsualPosts() []Post {
	return []Post{
		{Name: "Letter", Width: 245, Height: 165, Thick: 5, Weight: 50, Oblong: true},
		{Name: "Large letter", Width: 353, Height: 250, Thick: 25, Weight: 500},
	}
}

// leastOblong is how much longer than wide something is that is not square.
const leastOblong = 1.3

// PostFor is the first class that takes something; nil for none.
func PostFor(classes []Post, sent Post) *Post {
	i := slices.IndexFunc(classes, func(p Post) bool {
		return sent.Width <= p.Width && sent.Height <= p.Height && sent.Thick <= p.Thick && sent.Weight <= p.Weight &&
			(!p.Oblong || sent.Width >= leastOblong*sent.Height)
	})
	if i < 0 {
		return nil
	}
	return &classes[i]
}

// CheckPosts refuses a list of classes that cannot be one. The error is a *Refusal.
func CheckPosts(classes []Post) error {
	if len(classes) > 12 {
		return Refuse("posts", "At most 12 classes of post are kept.")
	}
	for _, p := range classes {
		if err := checkName("name", p.Name); err != nil {
			return err
		}
		if !within(p.Width, 50, 2000) || !within(p.Height, 50, 2000) || !within(p.Thick, .5, 200) || !within(p.Weight, 5, 20_000) {
			return Refuse("posts", "“%s” takes between 50 mm and 2 m, 0.5 to 200 mm thick, and 5 g to 20 kg.", p.Name)
		}
	}
	return nil
}
