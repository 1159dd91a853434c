// Package speech makes voices of texts, by an engine behind an interface.
package speech

import (
	"context"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/words"
)

// Engine makes a voice of a text.
type Engine interface {
	// Voices are those it has; it fails where it is not installed.
	Voices(ctx context.Context) ([]Voice, error)
	// Speak returns samples of one channel, and how many there are a second.
	Speak(ctx context.Context, sentence string, how doc.Spoken) (samples []int16, rate int, err error)
}

// Voice is a language, as an engine speaks it.
type Voice struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Time is how long speaking one text may take.
const Time = 60 * time.Second

// Said is a voice made of a text: a WAV file, and where in it each sentence is.
type Said struct {
	WAV   []byte
	Lines []doc.Caption
}

// Say speaks a text sentence by sentence, with the pause between that is asked for.
func Say(ctx context.Context, e Engine, how doc.Spoken) (*Said, error) {
	text := strings.TrimSpace(how.Text)
	if text == "" {
		return nil, words.New("speech.empty")
	}
	if utf8.RuneCountInString(text) > doc.MaxSpoken {
		return nil, words.New("speech.long", doc.MaxSpoken)
	}
	if field, why := how.Check(); why != "" {
		return nil, &doc.Invalid{Field: "spoken" + field, Why: why}
	}
	ctx, stop := context.WithTimeout(ctx, Time)
	defer stop()
	out := &Said{}
	var all []int16
	rate := 0
	for i, s := range Sentences(text) {
		samples, r, err := e.Speak(ctx, s, how)
		if err != nil {
			return nil, err
		}
		rate = r
		samples = trimmed(samples)
		if i > 0 {
			all = append(all, make([]int16, int(how.Pause)*rate/1000)...)
		}
		ms := func(n int) int64 { return int64(n) * 1000 / int64(rate) }
		from := ms(len(all))
		all = append(all, samples...)
		out.Lines = append(out.Lines, doc.Caption{From: from, To: ms(len(all)), Text: s})
	}
	if len(all) == 0 {
		return nil, words.New("speech.failed")
	}
	out.WAV = wav(all, rate)
	return out, nil
}

// Sentences parts a text at the ends of sentences and lines; there are at most doc.MaxLines, the last of which holds the rest.
func Sentences(text string) (list []string) {
	runes := []rune(text)
	begin := 0
	add := func(end int) {
		if s := strings.Join(strings.Fields(string(runes[begin:end])), " "); s != "" && strings.ContainsFunc(s, func(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) }) {
			list = append(list, s)
		}
		begin = end
	}
	for i, r := range runes {
		if len(list) == doc.MaxLines-1 {
			break
		}
		ends := strings.ContainsRune(".!?…。！？", r) && (i+1 == len(runes) || unicode.IsSpace(runes[i+1]) || r > 0x2fff)
		if ends || r == '\n' {
			add(i + 1)
		}
	}
	add(len(runes))
	return list
}

// quiet is below what samples count as silence.
const quiet = 96

// trimmed is a voice without the silence before and after it, but for a little.
func trimmed(v []int16) []int16 {
	loud := func(s int16) bool { return s > quiet || s < -quiet }
	a, b := 0, len(v)
	for a < b && !loud(v[a]) {
		a++
	}
	for b > a && !loud(v[b-1]) {
		b--
	}
	const little = 400
	return v[max(0, a-little):min(len(v), b+2*little)]
}
