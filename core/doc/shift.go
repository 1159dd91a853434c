package doc

import "slices"

// Shift says that a thread goes on by one step from each of a run of scenes to the next. The layers have plain numbers, which it does not hold to:
// it is for what comes between them later.
type Shift struct {
	ID     string   `json:"id"`
	Thread string   `json:"thread"`
	Scenes []string `json:"scenes"` // by id, as they follow one another in the film
	Step   Step     `json:"step"`
}

// Step is what is added from a scene to the next.
type Step struct {
	X       float64 `json:"x,omitzero"`       // page px
	Y       float64 `json:"y,omitzero"`       // page px
	Turn    float64 `json:"turn,omitzero"`    // degrees
	Size    float64 `json:"size,omitzero"`    // factor, 0.01..100; 0 is 1
	Opacity float64 `json:"opacity,omitzero"` // -1..1
	Hue     float64 `json:"hue,omitzero"`     // degrees of the colour's hue in OKLab
	Light   float64 `json:"light,omitzero"`   // of its lightness there, -1..1
}

// MaxShifts is how many shifts a film has at most.
const MaxShifts = 1000

func sameShift(a, b Shift) bool {
	return a.ID == b.ID && a.Thread == b.Thread && a.Step == b.Step && slices.Equal(a.Scenes, b.Scenes)
}

// shifts checks the shifts of a film.
func (c *checker) shifts(at string, f *Film) {
	c.most(at+".shifts", len(f.Shifts), MaxShifts)
	if c.err != nil || len(f.Shifts) == 0 {
		return
	}
	place := map[string]int{}
	for i, s := range f.Shown() {
		if s != nil {
			place[s.ID] = i
		}
	}
	for i, s := range f.Shifts {
		at := c.at("%s.shifts[%d]", at, i)
		c.id(at+".id", s.ID)
		c.idLike(at+".thread", s.Thread)
		if len(s.Scenes) < 2 || len(s.Scenes) > MaxScenes {
			c.fail(at+".scenes", "are %d; a shift goes through two or more", len(s.Scenes))
		}
		last := -1
		for _, id := range s.Scenes {
			k, there := place[id]
			if !there || k <= last {
				c.fail(at+".scenes", "are not in the film in this order")
				return
			}
			last = k
		}
		for name, v := range map[string][3]float64{
			"x": {s.Step.X, -MaxPlace, MaxPlace}, "y": {s.Step.Y, -MaxPlace, MaxPlace}, "turn": {s.Step.Turn, -MaxPlace, MaxPlace}, "size": {s.Step.Size, 0, 100},
			"opacity": {s.Step.Opacity, -1, 1}, "hue": {s.Step.Hue, -MaxPlace, MaxPlace}, "light": {s.Step.Light, -1, 1},
		} {
			c.number(at+".step."+name, v[0], v[1], v[2])
		}
	}
}
