package effect

// Fade comes by its opacity.
const Fade = "fade"

var _ = add(Effect{
	Name: Fade, Words: "Fade", Rank: 10,
	Finds: "appear dissolve ghost gently soft show hide vanish disappear transparent opacity",
	Comes: &Comes{Says: [2]string{"fades in", "fades out"}, ByUnit: true, Still: true, Morphs: true, Rule: func(Of) func(Moment) Shown {
		return func(at Moment) Shown { return Shown{Opacity: clamp(at.P)} }
	}},
})
