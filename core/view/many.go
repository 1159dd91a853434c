package view

import (
	"capstan/core/doc"
	"capstan/core/ink"
	"capstan/core/motion"
	"capstan/core/scope"
)

// Many are a lot of selected layers in the inspector, in few words: there is no use in what is worked out for one of them, and a thousand whole
// views would take a fifth of a second. What layers have in common is told once.
type Many struct {
	Looks   []Selected `json:"looks"`   // layers but for who they are, where they lie and what moves them
	Layers  []string   `json:"layers"`  // for each its id, thread and name
	Look    []int      `json:"look"`    // which of Looks it has
	Numbers []float64  `json:"numbers"` // for each x y w h of its box as in Selected.Box, its turn, how many layers are in it, and in how many later scenes its thread lives
	Moves   [][]string `json:"moves"`   // for each its moves: id, kind, effect, name and what they start by
}

// ManyView returns the selected layers of the moment's scene in few words.
func (s *Views) ManyView(m scope.Moment, threads []string) Many {
	i := s.SceneIndex(m)
	sc := s.Scene(m)
	list := s.Layers(m, threads)
	v := Many{Looks: []Selected{}, Layers: make([]string, 0, 3*len(list)), Look: make([]int, 0, len(list)), Numbers: make([]float64, 0, 7*len(list)), Moves: make([][]string, len(list))}
	later := map[string]int{}
	for _, next := range s.Shown.Doc.Film.After(i) {
		doc.Walk(next.Layers, func(l, _ *doc.Layer) bool { later[l.Thread]++; return true })
	}
	var looks []*doc.Layer
	for n, l := range list {
		k := len(looks) - 1
		for k >= 0 && !l.Like(looks[k]) {
			k--
		}
		if k < 0 {
			k = len(looks)
			looks = append(looks, l)
			// Whether they lie in a group would have to be sought for each: making them the ground says so.
			w := Selected{Unites: l.Is().Joins, Grounds: scope.Groundable(l, nil), Layer: ink.Shown(l, sc), Moves: []MoveView{}, Colours: []string{}, Inks: []InkUse{}, Kept: []string{}, Strands: []Strand{}, Refs: [][2]float64{}}
			w.Layer.Path = "" // long, and shown by nothing but the page
			wholeShape(w.Layer)
			if l.Made != nil {
				w.Made, w.Kept = l.Made.How, make([]string, len(l.Made.Of))
			}
			v.Looks = append(v.Looks, w)
		}
		inside := 0
		doc.Walk(l.Children, func(*doc.Layer, *doc.Layer) bool { inside++; return true })
		box, _ := s.Shown.Box(i, l.ID)
		at := s.Shown.RestMatrix(i, l.ID).Apply(box.Centre())
		v.Layers = append(v.Layers, l.ID, l.Thread, l.Name)
		v.Look = append(v.Look, k)
		v.Numbers = append(v.Numbers, scope.Hundredth(at.X), scope.Hundredth(at.Y), scope.Hundredth(box.W()), scope.Hundredth(box.H()), l.Place.Turn, float64(inside), float64(later[l.Thread]))
		v.Moves[n] = []string{}
		for _, mv := range l.Moves {
			v.Moves[n] = append(v.Moves[n], mv.ID, mv.Kind, mv.Effect, motion.Name(mv), mv.Start.When)
		}
	}
	return v
}
