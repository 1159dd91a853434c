package delivery

// Preset is what is asked for by a name.
type Preset struct {
	Name string `json:"name"`
	Says string `json:"says"`
	Ask  Ask    `json:"ask"`
}

// Presets are those that Capstan brings, by use. Sizes and rates that a film cannot have are refused like any others.
func Presets() []Preset {
	return []Preset{
		{"Film", "as large and true as the page", Ask{Format: MP4, Quality: "fine"}},
		{"For slides", "1080 high, plays in any slide", Ask{Format: MP4, Height: 1080, Quality: "good"}},
		{"For a feed", "720 high, quick to load", Ask{Format: MP4, Height: 720, Quality: "light"}},
		{"Message", "a GIF of at most 1 MB", Ask{Format: GIF, Height: 360, Target: 1000_000}},
		{"Page loop", "a GIF, 480 high, exact colours", Ask{Format: GIF, Height: 480}},
		{"Sticker", "clear, exact, at most 500 KB", Ask{Format: APNG, Target: 500_000}},
		{"Sticker, light", "a clear GIF of at most 250 KB", Ask{Format: GIF, Target: 250_000}},
		{"Cover", "the frame shown here, as PNG", Ask{Format: PNG}},
	}
}
