package session

import (
	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/motion"
)

// Many are a lot of selected layers in the inspector, in few words: there is no use in what is worked out for one of them, and a thousand whole
// views would take a fifth of a second. What layers have in common is told once.
type Many struct {
	Looks   []Selected `json:"looks"`  // layers but for who they are, where they lie and what moves them
	Layers  []string   `json:"layers"` // for each its id, thread and name
	Look    []int      `json:"look"`   // which of Looks it has
	Numbers []float64  `json:"-"`      // for each x y w h of its box as in Selected.Box, its turn, how many layers are in it, and in how many later scenes its thread lives
	Moves   [][]string `json:"moves"`  // for each its moves: id, kind, effect, name and what they start by
}

// CrowdView is the overlay of many selected layers: the upright box around all that are not locked, nil where fewer than two are not, and of
// each that is drawn its corners from its own upper left clockwise, as eight numbers.
func (s *Session) CrowdView(m Moment, threads []string) (around *Box, corners []float64) {
	s.standWhole(m)
	all, free := geom.EmptyBox(), 0
	for _, l := range s.layers(m, threads) {
		c, _, ok := s.player.Quad(l.ID)
		if !ok {
			continue
		}
		for _, p := range c {
			corners = append(corners, p.X, p.Y)
		}
		if !l.Locked {
			all = all.Union(boxOf(c))
			free++
		}
	}
	return boxAround(all, free), corners
}

// ManyView returns the selected layers of the moment's scene in few words.
func (s *Session) ManyView(m Moment, threads []string) Many {
	i := s.sceneIndex(m)
	sc := s.scene(m)
	list := s.layers(m, threads)
	v := Many{Looks: []Selected{}, Layers: make([]string, 0, 3*len(list)), Look: make([]int, 0, len(list)), Numbers: make([]float64, 0, 7*len(list)), Moves: make([][]string, len(list))}
	later := map[string]int{}
	for _, next := range s.shown.Doc.Film.After(i) {
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
			w := Selected{Unites: combinable(l) == nil, Grounds: groundable(l, nil), Layer: shown(l, sc), Moves: []MoveView{}, Colours: []string{}, Kept: []string{}, Strands: []Strand{}, Refs: [][2]float64{}}
			w.Layer.Path = "" // long, and shown by nothing but the page
			if l.Made != nil {
				w.Made, w.Kept = l.Made.How, make([]string, len(l.Made.Of))
			}
			v.Looks = append(v.Looks, w)
		}
		inside := 0
		doc.Walk(l.Children, func(*doc.Layer, *doc.Layer) bool { inside++; return true })
		box, _ := s.shown.Box(i, l.ID)
		at := s.shown.RestMatrix(i, l.ID).Apply(box.Centre())
		v.Layers = append(v.Layers, l.ID, l.Thread, l.Name)
		v.Look = append(v.Look, k)
		v.Numbers = append(v.Numbers, hundredth(at.X), hundredth(at.Y), hundredth(box.W()), hundredth(box.H()), l.Place.Turn, float64(inside), float64(later[l.Thread]))
		v.Moves[n] = []string{}
		for _, mv := range l.Moves {
			v.Moves[n] = append(v.Moves[n], mv.ID, mv.Kind, mv.Effect, motion.Name(mv), mv.Start.When)
		}
	}
	return v
}
