package effect

// Push moves both pages one of eight ways.
const Push = "push"

var _ = add(Effect{
	Name: Push, Words: "Push", Rank: 35,
	Params: []Param{travel(0)},
	Pages:  &Pages{Turns: true, Sign: [2]string{"M9 -6h-7v12h7", "M-9 -6h7v12h-7"}, Push: func(p Params) float64 { return p.Number("direction") }},
})
