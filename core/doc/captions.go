package doc

// Captioned is how what voices say is shown in a film.
type Captioned struct {
	Size   float64 `json:"size,omitzero"`   // px of the page; 0: an eighteenth of its height
	Top    bool    `json:"top,omitzero"`    // at the upper side of the page; else at the lower one
	Colour string  `json:"colour,omitzero"` // of the words, #rrggbb; empty: the role words of the scene, or paper
	Plate  string  `json:"plate,omitzero"`  // behind them, #rrggbb or #rrggbbaa; empty: the role ground of the scene, or ink
}

// captioned checks how captions are shown.
func (c *checker) captioned(at string, v *Captioned) {
	if v == nil {
		return
	}
	if v.Size != 0 {
		c.number(at+".size", v.Size, 4, 1000)
	}
	if v.Colour != "" {
		c.colour(at+".colour", v.Colour)
	}
	if v.Plate != "" {
		c.colour(at+".plate", v.Plate)
	}
}
