package demo

import (
	"capstan/core/delivery"
)

// Presets are what is asked for of each of the demo's projects, by its id.
func Presets() map[string][]delivery.Preset {
	return map[string][]delivery.Preset{
		"kite-day-opener":   {{Name: "For the evening’s screen", Ask: delivery.Ask{Format: delivery.MP4, Height: 1080, Quality: "fine"}}, {Name: "For the club’s page", Ask: delivery.Ask{Format: delivery.GIF, Height: 360, Target: 1500_000}}, {Name: "Atop the club’s page", Ask: delivery.Ask{Format: delivery.SVG, Height: 1080, Quality: "good"}}},
		"kite-day-post":     {{Name: "Square post", Ask: delivery.Ask{Format: delivery.MP4, Height: 1080, Quality: "good"}}},
		"kite-day-reel":     {{Name: "Upright reel", Ask: delivery.Ask{Format: delivery.MP4, Height: 1920, Quality: "good"}}},
		"kite-day-talk":     {{Name: "Into the slides", Ask: delivery.Ask{Format: delivery.MP4, Height: 720, Quality: "good"}}},
		"kite-day-evening":  {{Name: "Upright post", Ask: delivery.Ask{Format: delivery.MP4, Height: 1350, Quality: "good"}}},
		"kite-day-lifted":   {{Name: "Upright post", Ask: delivery.Ask{Format: delivery.MP4, Height: 1350, Quality: "good"}}},
		"kite-day-drawings": {{Name: "Web piece", Ask: delivery.Ask{Format: delivery.SVG, Height: 540}}},
		"kite-day-sticker":  {{Name: "Sticker for messages", Ask: delivery.Ask{Format: delivery.GIF, Height: 512, Target: 120_000}}, {Name: "Sticker, exact", Ask: delivery.Ask{Format: delivery.APNG, Height: 512, Target: 500_000}}},
	}
}
