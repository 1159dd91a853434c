package effect

// AtOnce is there, or gone, from its begin on; by unit, one after another.
const AtOnce = "at-once"

var _ = add(Effect{
	Name: AtOnce, Words: "At once", Rank: 90,
	Finds: "appear suddenly instant now show up hide vanish typed typing typewriter type cut",
	Offers: []Offer{
		{Kind: Entrance, Words: "At once (appears)", Name: "At once in"},
		{Kind: Entrance, Variant: "typed", Words: "Typed on", Name: "Typed on", Duration: 1000, Unit: "letter"},
		{Kind: Exit, Words: "At once (vanishes)", Name: "At once out"},
	},
	Comes: &Comes{Says: [2]string{"appears", "disappears"}, ByUnit: true, Still: true, Apart: true, Sudden: true, Even: true},
})
