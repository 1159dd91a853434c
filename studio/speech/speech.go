// Package speech makes voices of texts, by an engine behind an interface.
package speech

import (
	"context"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/sound"
	"capstan/core/words"
)

// Engine makes a voice of a text.
type Engine interface {
	// Voices are those it has; it fails where it is not installed.
	Voices(ctx context.Context) ([]Voice, error)
	// Speak returns samples of one channel, and how many there are a second.
	Speak(ctx context.Context, sentence string, how doc.Spoken) (samples []int16, rate int, err error)
}

// Marking is an engine that can speak some words of a sentence silently, which tells where each of them is.
type Marking interface {
	Engine
	SpeakMarked(ctx context.Context, list []string, loud func(i int) bool, how doc.Spoken) (samples []int16, rate int, err error)
}

// Voice is a language, as an engine speaks it.
type Voice struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// Time is how long speaking one text may take.
const Time = 60 * time.Second

// Said is a voice made of a text: a WAV file, and where in it each sentence is, and each word, where the engine tells that.
type Said struct {
	WAV   []byte
	Lines []doc.Caption
	Words []doc.Word
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
		starts, list := wordsOf(ctx, e, s, how, samples, rate)
		samples, before := trimmed(samples)
		if i > 0 {
			all = append(all, make([]int16, int(how.Pause)*rate/1000)...)
		}
		ms := func(n int) int64 { return int64(n) * 1000 / int64(rate) }
		from := ms(len(all))
		for k, at := range starts {
			out.Words = append(out.Words, doc.Word{At: ms(len(all) + max(0, at-before)), Text: string(first([]rune(list[k]), doc.MaxMarked))})
		}
		all = append(all, samples...)
		out.Lines = append(out.Lines, doc.Caption{From: from, To: ms(len(all)), Text: s})
	}
	if len(all) == 0 {
		return nil, words.New("speech.failed")
	}
	out.Words = first(out.Words, doc.MaxWords)
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
func trimmed(v []int16) (rest []int16, before int) {
	loud := func(s int16) bool { return s > quiet || s < -quiet }
	a, b := 0, len(v)
	for a < b && !loud(v[a]) {
		a++
	}
	for b > a && !loud(v[b-1]) {
		b--
	}
	const little = 400
	before = max(0, a-little)
	return v[before:min(len(v), b+2*little)], before
}

func first[V any](list []V, n int) []V { return list[:min(len(list), n)] }

// Of a sentence of which each word is looked for: how many it has at most, and how many seconds it takes at most.
const (
	mostMarked = 200
	mostSaid   = 90
)

// wordsOf are the words of a sentence, and where in its samples each begins; none where the engine does not tell.
func wordsOf(ctx context.Context, e Engine, sentence string, how doc.Spoken, plain []int16, rate int) (starts []int, list []string) {
	for _, w := range strings.Fields(sentence) {
		if strings.ContainsFunc(w, func(r rune) bool { return unicode.IsLetter(r) || unicode.IsDigit(r) }) || len(list) == 0 {
			list = append(list, w)
		} else {
			list[len(list)-1] += " " + w
		}
	}
	m, ok := e.(Marking)
	if !ok || len(list) > mostMarked || len(plain) > mostSaid*rate {
		return nil, nil
	}
	read := func(loud func(i int) bool) []float32 {
		v, _, err := m.SpeakMarked(ctx, list, loud, how)
		if err != nil {
			return nil // it is spoken; that words are not found in it is seen where they would be
		}
		return floats(v)
	}
	silent := make([][]float32, sound.Readings(len(list)))
	for r := range silent {
		silent[r] = read(func(i int) bool { return sound.Loud(r, i) })
	}
	letters := make([]int, len(list))
	for k, w := range list {
		letters[k] = utf8.RuneCountInString(w)
	}
	starts = sound.WordTimes(floats(plain), silent, rate, letters)
	for k, w := range list {
		list[k] = strings.TrimFunc(w, func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) })
	}
	return starts, list
}

func floats(v []int16) []float32 {
	out := make([]float32, len(v))
	for i, s := range v {
		out[i] = float32(s) / (1 << 15)
	}
	return out
}
