package doc

import (
	"slices"
	"strings"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"
)

// What a sound is for. Music steps back under voices.
const (
	Music = "music"
	Noise = "effect"
	Voice = "voice"
)

// Uses of sounds, in the order in which they are offered.
var SoundUses = []string{Music, Noise, Voice}

// Curves of fades: of even power (a quarter of a sine), of even amplitude, and of even decibels.
const (
	EvenPower = ""
	EvenLine  = "line"
	EvenLevel = "level"
)

// Limits of sounds.
const (
	MaxSounds    = 64         // of a film's clock, and of each scene's
	MaxPoints    = 200        // of the volume of one sound
	MaxBeats     = 4000       // of one sound
	MinGain      = -60        // dB; what is lower is silent to ears, and mute is a field of its own
	MaxGain      = 24         // dB
	MinSpeed     = 0.25       // of a recording
	MaxSpeed     = 4          // of a recording
	SampleRate   = 48000      // samples a second that recordings are stored with
	MaxRecording = 2 * 3600   // s of one
	MaxSoundTime = 2 * 3600e3 // ms into a recording, and of a sound's length
)

// Sound is a stretch of a recording that is heard: with the film, on its clock, or with a scene, on that of the scene.
type Sound struct {
	ID         string        `json:"id"`
	Name       string        `json:"name"`
	Media      string        `json:"media"`
	Use        string        `json:"use"`                 // music, effect or voice
	Start      Start         `json:"start"`               // of a scene's as that of a move; of the film's at a time
	End        *Anchor       `json:"end,omitzero"`        // of a scene's: it is heard until this; it always stretches
	Length     int64         `json:"length"`              // ms it is heard, where nothing ends it
	From       int64         `json:"from,omitzero"`       // ms into the recording at which it begins
	Loops      bool          `json:"loops,omitzero"`      // the recording begins again at its end, without a seam
	Speed      float64       `json:"speed,omitzero"`      // of the recording, MinSpeed to MaxSpeed; 0 counts as 1
	KeepsPitch bool          `json:"keepsPitch,omitzero"` // at another speed; else its pitch goes along
	Gain       float64       `json:"gain,omitzero"`       // dB
	Points     []VolumePoint `json:"points,omitzero"`     // the course of its volume, by rising times
	FadeIn     int64         `json:"fadeIn,omitzero"`     // ms
	FadeOut    int64         `json:"fadeOut,omitzero"`    // ms
	Curve      string        `json:"curve,omitzero"`      // of its fades
	Pan        float64       `json:"pan,omitzero"`        // -1 is left, 1 is right
	Along      bool          `json:"along,omitzero"`      // it pans along with the layer of the move that its start hangs on
	Muted      bool          `json:"muted,omitzero"`
	Beats      []int64       `json:"beats,omitzero"`  // of its recording, ms into it, rising
	Marks      []SoundMark   `json:"marks,omitzero"`  // by rising times
	Spoken     *Spoken       `json:"spoken,omitzero"` // what its recording was made of; nil: it was not made here
	Extra      Extra         `json:",embed"`
}

// VolumePoint is how loud a sound is at a time, beside its gain. Between two it goes evenly in dB; before the first and after the last it stays.
type VolumePoint struct {
	At   int64   `json:"at"`   // ms since the sound began
	Gain float64 `json:"gain"` // dB, MinGain to MaxGain
}

// Mix is how all sounds of a film go together.
type Mix struct {
	Back     float64 `json:"back"`              // dB that music steps back under voices, 0 to 60
	Down     int64   `json:"down"`              // ms it takes to, before a voice begins
	Up       int64   `json:"up"`                // ms it takes to come back
	Loudness float64 `json:"loudness,omitzero"` // LUFS that the whole film is brought to, -40 to -5; 0: as it comes
}

// StandardMix is that of a film that says nothing.
var StandardMix = Mix{Back: 12, Down: 300, Up: 800}

// Mixed returns how the film's sounds go together.
func (f *Film) Mixed() Mix {
	if f.Mix == nil {
		return StandardMix
	}
	return *f.Mix
}

// Rate returns the speed of its recording.
func (s *Sound) Rate() float64 {
	if s.Speed == 0 {
		return 1
	}
	return s.Speed
}

// Clone returns a deep copy.
func (s *Sound) Clone() *Sound {
	if s == nil { // validation says so
		return nil
	}
	c := *s
	c.End, c.Points, c.Spoken = copied(s.End), slices.Clone(s.Points), s.Spoken.clone()
	c.Beats, c.Marks = slices.Clone(s.Beats), slices.Clone(s.Marks)
	return &c
}

// CloneSounds returns deep copies.
func CloneSounds(list []*Sound) []*Sound {
	if list == nil {
		return nil
	}
	out := make([]*Sound, len(list))
	for i, s := range list {
		out[i] = s.Clone()
	}
	return out
}

// Equal reports whether two sounds are the same.
func (s *Sound) Equal(o *Sound) bool {
	return s == o || s != nil && o != nil && s.ID == o.ID && s.Name == o.Name && s.Media == o.Media && s.Use == o.Use && s.Start == o.Start && same(s.End, o.End) &&
		s.Length == o.Length && s.From == o.From && s.Loops == o.Loops && s.Speed == o.Speed && s.KeepsPitch == o.KeepsPitch && s.Gain == o.Gain && slices.Equal(s.Points, o.Points) &&
		s.FadeIn == o.FadeIn && s.FadeOut == o.FadeOut && s.Curve == o.Curve && s.Pan == o.Pan && s.Along == o.Along && s.Muted == o.Muted && s.Spoken.Equal(o.Spoken) && slices.Equal(s.Beats, o.Beats) && slices.Equal(s.Marks, o.Marks) && sameExtra(s.Extra, o.Extra)
}

// sameSounds reports whether two lists hold the same sounds.
func sameSounds(a, b []*Sound) bool { return slices.EqualFunc(a, b, (*Sound).Equal) }

// Sound finds a sound of the film's by id, with the scene on whose clock it is; nil for that of the film.
func (f *Film) Sound(id string) (*Sound, *Scene) {
	var found *Sound
	var of *Scene
	f.EachSound(func(s *Sound, sc *Scene) {
		if s.ID == id {
			found, of = s, sc
		}
	})
	return found, of
}

// Sounding reports whether the film has a sound that is not muted.
func (f *Film) Sounding() (is bool) {
	f.EachSound(func(s *Sound, sc *Scene) { is = is || !s.Muted && (sc == nil || !sc.Aside) })
	return is
}

// EachSound calls f with every sound, and the scene on whose clock it is; nil for the film's.
func (f *Film) EachSound(each func(s *Sound, sc *Scene)) {
	all := func(list []*Sound, sc *Scene) {
		for _, s := range list {
			if s != nil {
				each(s, sc)
			}
		}
	}
	all(f.Sounds, nil)
	for _, sc := range f.Scenes {
		if sc != nil {
			all(sc.Sounds, sc)
		}
	}
}

// IsSound reports whether the file is a recording.
func (m *Media) IsSound() bool {
	return m != nil && (m.Samples > 0 || strings.HasPrefix(m.Type, "audio/"))
}

// sounds checks those of a clock; moves and what else there is to hang on are those of its scene, nil for the film's.
func (c *checker) sounds(at string, list []*Sound, moves map[string]*Move, on hooks, film bool) {
	c.most(at, len(list), MaxSounds)
	for i, s := range list {
		at := c.at("%s[%d]", at, i)
		if s == nil {
			c.fail(at, "is empty")
			return
		}
		c.id(at+".id", s.ID)
		c.name(at+".name", s.Name)
		if !c.media[s.Media].IsSound() {
			c.fail(at+".media", "names no recording that the document knows")
		}
		c.oneOf(at+".use", s.Use, SoundUses...)
		c.oneOf(at+".curve", s.Curve, EvenPower, EvenLine, EvenLevel)
		c.sounding(at, s)
		if film {
			if s.Start.When != AtTime || s.End != nil {
				c.fail(at+".start", "is on the film's clock: it begins at a time, and its end hangs on nothing")
			}
			c.time(at+".start.offset", s.Start.Offset, 0)
			continue
		}
		c.oneOf(at+".start.when", s.Start.When, AtTime, WhenBegins, WhenEnds, BeforeSceneEnd, AtCue)
		c.time(at+".start.offset", s.Start.Offset, -MaxTime)
		if s.End != nil && !s.End.Stretches {
			c.fail(at+".end", "must stretch: a sound does not begin earlier because it ends earlier")
		}
		c.hangs(at, &Move{Start: s.Start, End: s.End}, moves, on)
	}
}

// sounding checks the numbers of a sound.
func (c *checker) sounding(at string, s *Sound) {
	if s.Length < MinDuration {
		c.fail(at+".length", "is %d ms; it must be %d at least", s.Length, MinDuration)
	}
	for field, v := range map[string]int64{".length": s.Length, ".from": s.From, ".fadeIn": s.FadeIn, ".fadeOut": s.FadeOut} {
		if v < 0 || v > MaxSoundTime {
			c.fail(at+field, "is %d ms; it must be 0 to %d", v, int64(MaxSoundTime))
		}
	}
	if s.Speed != 0 {
		c.number(at+".speed", s.Speed, MinSpeed, MaxSpeed)
	}
	c.most(at+".beats", len(s.Beats), MaxBeats)
	for i, b := range s.Beats {
		if b < 0 || b > MaxSoundTime || i > 0 && b <= s.Beats[i-1] {
			c.fail(at+".beats", "must be rising times of 0 to %d ms", int64(MaxSoundTime))
			break
		}
	}
	c.marks(at, s)
	if s.Spoken != nil {
		if field, why := s.Spoken.Check(); why != "" {
			c.fail(at+".spoken"+field, "%s", why)
		}
	}
	c.number(at+".gain", s.Gain, MinGain, MaxGain)
	c.number(at+".pan", s.Pan, -1, 1)
	c.most(at+".points", len(s.Points), MaxPoints)
	last := int64(-1)
	for _, p := range s.Points {
		if p.At <= last || p.At > MaxSoundTime {
			c.fail(at+".points", "must have rising times of 0 to %d ms", int64(MaxSoundTime))
		}
		c.number(at+".points", p.Gain, MinGain, MaxGain)
		last = p.At
	}
}

// mix checks how sounds go together.
func (c *checker) mix(at string, m *Mix) {
	if m == nil {
		return
	}
	c.number(at+".back", m.Back, 0, 60)
	if min(m.Down, m.Up) < 0 || max(m.Down, m.Up) > 60000 {
		c.fail(at, "steps back and comes back in 0 to 60000 ms")
	}
	if m.Loudness != 0 {
		c.number(at+".loudness", m.Loudness, -40, -5)
	}
}

type soundFields Sound

// MarshalJSONTo writes known fields in the order of the struct, then the unknown ones by name.
func (s *Sound) MarshalJSONTo(e *jsontext.Encoder) error {
	return json.MarshalEncode(e, (*soundFields)(s))
}

// UnmarshalJSONFrom keeps unknown fields in Extra.
func (s *Sound) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	return json.UnmarshalDecode(d, (*soundFields)(s))
}

// MarshalJSON is MarshalJSONTo for encoding/json.
func (s *Sound) MarshalJSON() ([]byte, error) { return Encode(s) }

// UnmarshalJSON is UnmarshalJSONFrom for encoding/json.
func (s *Sound) UnmarshalJSON(b []byte) error { return json.Unmarshal(b, (*soundFields)(s)) }
