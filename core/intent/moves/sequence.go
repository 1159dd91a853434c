package moves

import (
	"cmp"
	"slices"
	"sort"

	"capstan/core/doc"
	"capstan/core/geom"
	"capstan/core/intent"
	"capstan/core/motion"
	"capstan/core/words"
)

// Orders in which a timing tool takes moves, beside those by place of doc.
const (
	asTheyBegin  = ""         // ties as they are stacked, from the front
	frontToBack  = "front"    // as they are stacked
	backToFront  = "back"     //
	leftToRight  = "left"     // by the middle of each on the page
	rightToLeft  = "right"    //
	topToBottom  = "top"      //
	bottomToTop  = "bottom"   //
	asSelected   = "selected" // in the order they were selected in
	atRandom     = "shuffled" // seeded
	byDistanceOf = doc.FromPoint
)

// sequence is an order asked for: its name, the seed of a random one, and the point on the page, in px, that distances are from.
type sequence struct {
	Order string     `json:"order"`
	Seed  int64      `json:"seed"`
	From  [2]float64 `json:"from"`
}

// inSequence puts blocks into an order and gives each its rank: what lies as far shares one.
func inSequence(s *intent.Desk, list []block, q sequence, ids []string) error {
	i := list[0].bars[0].scene
	box := func(b *block) geom.Box {
		l := b.bars[0].layer
		own, _ := s.Film.Box(i, l.ID)
		return s.Film.Ancestry(i, l.ID).Mul(s.Film.RestMatrix(i, l.ID)).ApplyBox(own)
	}
	by := func(key func(b *block) float64) {
		sort.SliceStable(list, func(x, y int) bool { return key(&list[x]) < key(&list[y]) })
	}
	stacked := func(sign float64) {
		at, n := map[string]float64{}, 0.0
		doc.Walk(s.Doc.Film.Scenes[i].Layers, func(l, _ *doc.Layer) bool { at[l.ID] = n; n++; return true })
		by(func(b *block) float64 { return sign * at[b.bars[0].layer.ID] })
	}
	switch q.Order {
	case asTheyBegin:
	case frontToBack:
		stacked(-1)
	case backToFront:
		stacked(1)
	case leftToRight:
		by(func(b *block) float64 { return box(b).Centre().X })
	case rightToLeft:
		by(func(b *block) float64 { return -box(b).Centre().X })
	case topToBottom:
		by(func(b *block) float64 { return box(b).Centre().Y })
	case bottomToTop:
		by(func(b *block) float64 { return -box(b).Centre().Y })
	case asSelected:
		at := map[string]float64{}
		for k, id := range ids {
			at[id] = float64(k)
		}
		by(func(b *block) float64 {
			first := slices.MinFunc(b.bars, func(x, y bar) int { return cmp.Compare(at[x.move.ID], at[y.move.ID]) })
			return at[first.move.ID]
		})
	default:
		var ranks []int
		if q.Order == atRandom {
			ranks, _ = motion.Ranks(doc.Shuffled, len(list), q.Seed)
		} else {
			boxes := make([]geom.Box, len(list))
			for k := range list {
				boxes[k] = box(&list[k])
			}
			var ok bool
			if ranks, _, ok = motion.PlaceRanks(q.Order, boxes, geom.Point{X: q.From[0], Y: q.From[1]}); !ok {
				return words.New("moves.order", q.Order)
			}
		}
		for k := range list {
			list[k].rank = ranks[k]
		}
		sort.SliceStable(list, func(x, y int) bool { return list[x].rank < list[y].rank })
		return nil
	}
	for k := range list {
		list[k].rank = k
	}
	return nil
}
