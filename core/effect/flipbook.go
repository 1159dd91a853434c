package effect

import "math"

// FlipBook shows the children of a group one at a time, each for the same time or for one of its own.
const FlipBook = "flip-book"

var _ = add(Effect{
	Name: FlipBook, Words: "Flip-book", Rank: 175,
	Finds: "frames cartoon poses animation stop-motion walk sprite film",
	Params: []Param{
		func() Param {
			q := num("each", "Each for", "How long each is shown", "ms", 120, 10, 60000)
			q.Step = 10
			return q
		}(),
		{Name: "single", Control: List, Words: "Single ones", Label: "How long single ones are shown, in ms; 0: as the others", Unit: "ms", Times: 1, Most: 600000, Step: 10},
	},
	Goes: &Goes{
		Says:   "turns its pages",
		Manner: Blinks, Keeps: true, Parted: true, Even: true, Told: "once through in ",
		Cycle: func(of Of) int64 {
			turns := turnsOf(of)
			if len(turns) == 0 {
				return 0
			}
			return int64(turns[len(turns)-1])
		},
		Cycled: func(of Of, ms int64) (Params, bool) {
			ends := turnsOf(of)
			if len(ends) == 0 {
				return nil, false
			}
			k := float64(ms) / ends[len(ends)-1]
			of.Params = of.Params.Clone()
			of.Params["each"] = math.Round(of.Params.Number("each") * k)
			changed := Params{"each": of.Params["each"]}
			if single := of.Params.Numbers("single"); len(single) > 0 {
				list := make([]any, len(single))
				for i, v := range single {
					list[i] = math.Round(v * k)
				}
				of.Params["single"], changed["single"] = list, list
			}
			ends = turnsOf(of)
			each := of.Params.Number("each")
			return changed, ends[len(ends)-1] == float64(ms) && each >= 10 && each <= 60000
		},
		Rule: func(of Of) func(float64) Going {
			ends := turnsOf(of)
			for i, n := 0, len(ends); i < n; i++ {
				ends[i] /= ends[n-1] // of the last: 1, at the end
			}
			return func(x float64) Going {
				for i, end := range ends {
					if x < end {
						return Going{Only: i + 1}
					}
				}
				return Going{Only: len(ends)}
			}
		},
	},
})

// turnsOf returns when each child's time ends, ms from the begin.
func turnsOf(of Of) (ends []float64) {
	single, all := of.Params.Numbers("single"), 0.0
	for i := range of.Parts {
		ms := of.Params.Number("each")
		if i < len(single) && single[i] >= 10 {
			ms = single[i]
		}
		all += float64(int64(ms))
		ends = append(ends, all)
	}
	return
}
