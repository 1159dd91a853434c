package effect

// Scale comes from another size, with a fade over a share of its way. From above 100 % it comes down onto the page; on the way out it grows past
// the viewer.
const Scale = "scale"

var _ = add(Effect{
	Name: Scale, Words: "Scale", Rank: 15,
	Finds: "pop zoom bigger smaller larger enlarge grow drop land stamp shrink size punch",
	Params: []Param{
		func() Param {
			q := share("from", "From", "Size that it comes from", 0.8, 0, 2000)
			q.Out = "To"
			return q
		}(),
		share("fade", "Fades for", "Share of the way in which it fades", 0.5, 0, 100),
	},
	Offers: []Offer{
		{Kind: Entrance, Words: "Scale", Name: "Scale in"},
		{Kind: Entrance, Variant: "above", Words: "From above", Name: "Scale in from above", Params: Params{"from": 1.4}, Duration: 350, Easing: "ease-in"},
		{Kind: Exit, Words: "Scale", Name: "Scale out"},
		{Kind: Exit, Variant: "past", Words: "Past the viewer", Name: "Scale out past the viewer", Params: Params{"from": 3.0, "fade": 0.4}},
	},
	Comes: &Comes{Says: [2]string{"scales in", "scales out"}, ByUnit: true, Rule: func(of Of) func(Moment) Shown {
		from, fade := of.Params.Number("from"), of.Params.Number("fade")
		return func(at Moment) Shown {
			s := Shown{Opacity: 1, Growth: max(0, from+(1-from)*at.P) - 1}
			if fade > 0 {
				s.Opacity = clamp(at.P / fade)
			}
			return s
		}
	}},
})
