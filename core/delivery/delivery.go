// Package delivery says what a file of a film is in numbers: its size, rate, range and frames, and what is too much to ask for. The page,
// the API and the command line all ask here.
package delivery

import (
	"cmp"
	"math"
	"slices"

	"capstan/core/anim"
	"capstan/core/doc"
	"capstan/core/frame"
	"capstan/core/motion"
	"capstan/core/words"
)

// Names of formats.
const (
	MP4       = "mp4"     // H.264
	WebM      = "webm"    // VP9
	AV1       = "av1"     // in WebM
	Clear     = "overlay" // VP9 with alpha, in WebM
	ProRes    = "mov"     // ProRes 4444 with alpha
	GIF       = "gif"
	APNG      = "apng"
	WebP      = "webp"   // animated
	Frames    = "frames" // PNGs in a zip, with a list of their times
	PNG       = "png"    // a still
	JPEG      = "jpg"    // a still
	WebPStill = "webp-still"
	SheetPDF  = "pdf"   // all scenes, to print
	SheetPNG  = "sheet" // all scenes, as one picture
	SVG       = "svg"   // animated
	HTML      = "html"  // a page around that
	WAV       = "wav"   // what is heard, alone
	MP3       = "mp3"   // the same, small
	SRT       = "srt"   // what voices say, with its times
	VTT       = "vtt"   // the same, for web pages
)

// How tracks of sound are encoded.
const (
	AAC  = "aac"
	Opus = "opus"
	PCM  = "pcm"  // 24 bits
	MPEG = "mpeg" // layer III
)

// Format is what a kind of file can hold.
type Format struct {
	Words     string                              // what it is called
	Says      string                              // what it is for
	Use       string                              // what it is a kind of: see Uses
	End       string                              // how its files' names end; empty: as the format is called
	Type      string                              // media type of its files
	Plays     string                              // how the page shows a file of it: video, picture, or empty where browsers do not
	Still     bool                                // one frame
	Sheet     bool                                // all scenes, with their names and lengths, as a still
	Clear     bool                                // it can be clear where the page is
	Track     string                              // how what is heard is encoded; empty: nothing is
	Heard     bool                                // it has nothing but what is heard
	Captions  bool                                // it has captions, or can have a track of them
	Even      bool                                // both sides are even
	Video     bool                                // its frames follow each other at one rate
	Poster    bool                                // it has a picture that stands for it
	Numbers   []int                               // what Qualities are to its encoder; nil: it has no quality
	Palette   bool                                // it has few colours: which, and how exactly, can be asked for
	Texts     bool                                // it carries a title and a description
	Piece     bool                                // browsers move what is in it: it has no frames of its own
	Rests     bool                                // goes round, and may rest before it begins again; its frames have times of their own
	Least     int64                               // ms that a frame stays at least
	MaxPixels int                                 // of a frame
	Rate      func(num, den int64) (int64, int64) // the rate it makes of one that is asked for; nil: that
}

// Formats are the kinds of files there are, by name.
var Formats = map[string]Format{
	MP4:       {Words: "MP4 video", Says: "film, slides, posts", Use: Film, Type: "video/mp4", Plays: "video", Track: AAC, Captions: true, Even: true, Video: true, Poster: true, Numbers: x264, Texts: true, MaxPixels: MaxVideo},
	WebM:      {Words: "WebM", Says: "VP9, for web pages", Use: Film, Type: "video/webm", Plays: "video", Track: Opus, Captions: true, Even: true, Video: true, Numbers: vp9, Texts: true, MaxPixels: MaxVideo},
	AV1:       {Words: "WebM, AV1", Says: "smallest, takes longest", Use: Film, End: "webm", Type: "video/webm", Plays: "video", Track: Opus, Captions: true, Even: true, Video: true, Numbers: av1, Texts: true, MaxPixels: MaxVideo},
	Clear:     {Words: "WebM, clear", Says: "VP9 over other pages", Use: Overlay, End: "webm", Type: "video/webm", Plays: "video", Track: Opus, Captions: true, Clear: true, Even: true, Video: true, Numbers: vp9, Texts: true, MaxPixels: MaxVideo},
	ProRes:    {Words: "MOV, clear", Says: "ProRes 4444, for cutting", Use: Overlay, Type: "video/quicktime", Track: PCM, Clear: true, Even: true, Video: true, Texts: true, MaxPixels: MaxVideo},
	GIF:       {Words: "GIF", Says: "pages and messages", Use: Loop, Type: "image/gif", Plays: "picture", Rests: true, Least: 20, Clear: true, Palette: true, Texts: true, MaxPixels: MaxExact, Rate: anim.GIFRate},
	APNG:      {Words: "Animated PNG", Says: "exact, clear", Use: Loop, Type: "image/apng", Plays: "picture", Rests: true, Clear: true, Texts: true, MaxPixels: MaxExact},
	WebP:      {Words: "Animated WebP", Says: "small, clear", Use: Loop, Type: "image/webp", Plays: "picture", Rests: true, Clear: true, Numbers: webp, MaxPixels: MaxExact},
	SheetPDF:  {Words: "Scenes, PDF", Says: "all scenes with their names and lengths, to print", Use: Stills, Type: "application/pdf", Still: true, Sheet: true, Texts: true, MaxPixels: MaxPixels},
	SheetPNG:  {Words: "Scenes, PNG", Says: "all scenes with their names and lengths, one picture", Use: Stills, End: "png", Type: "image/png", Plays: "picture", Still: true, Sheet: true, MaxPixels: MaxPixels},
	Frames:    {Words: "PNG frames", Says: "a zip, with their times", Use: Stills, End: "zip", Type: "application/zip", Clear: true, Video: true, MaxPixels: MaxExact},
	PNG:       {Words: "PNG still", Says: "this frame", Use: Stills, Type: "image/png", Plays: "picture", Still: true, Clear: true, Texts: true, MaxPixels: MaxPixels},
	JPEG:      {Words: "JPEG still", Says: "this, smaller", Use: Stills, Type: "image/jpeg", Plays: "picture", Still: true, MaxPixels: MaxPixels},
	SVG:       {Words: "Animated SVG", Says: "a picture that plays, sharp at any size", Use: Web, Type: "image/svg+xml", Plays: "picture", Piece: true, Rests: true, Clear: true, Poster: true, Numbers: jpegs, Texts: true, MaxPixels: MaxPixels},
	HTML:      {Words: "Web page", Says: "one file that plays by itself, with a button", Use: Web, Type: "text/html", Plays: "page", Piece: true, Rests: true, Clear: true, Poster: true, Numbers: jpegs, Texts: true, MaxPixels: MaxPixels},
	WAV:       {Words: "WAV sound", Says: "what is heard, exact", Use: Audio, Type: "audio/wav", Plays: "sound", Track: PCM, Heard: true, Texts: true, MaxPixels: MaxPixels},
	MP3:       {Words: "MP3 sound", Says: "what is heard, small", Use: Audio, Type: "audio/mpeg", Plays: "sound", Track: MPEG, Heard: true, Texts: true, MaxPixels: MaxPixels},
	SRT:       {Words: "Captions, SRT", Says: "words with their times", Use: Audio, Type: "application/x-subrip", Heard: true, Captions: true, MaxPixels: MaxPixels},
	VTT:       {Words: "Captions, VTT", Says: "words with their times, for web pages", Use: Audio, Type: "text/vtt", Heard: true, Captions: true, MaxPixels: MaxPixels},
	WebPStill: {Words: "WebP still", Says: "this, smaller, clear", Use: Stills, End: "webp", Type: "image/webp", Plays: "picture", Still: true, Clear: true, Numbers: webp, MaxPixels: MaxExact},
}

// What files are made for, in the order in which it is offered.
const (
	Film    = "film"
	Overlay = "overlay"
	Loop    = "loop"
	Web     = "web"
	Stills  = "stills"
	Audio   = "sound"
)

// Uses are what files are made for, with its words.
var Uses = []Use{{Film, "Film"}, {Loop, "Goes round"}, {Overlay, "Overlay"}, {Web, "Web piece"}, {Stills, "Pictures"}, {Audio, "Heard"}}

// Use is what files are made for.
type Use struct {
	Name  string `json:"name"`
	Words string `json:"words"`
}

// What Qualities are to encoders: constant rate factors of x264 (0..51), VP9 and AV1 (0..63), lower being truer, about as true as each other by SSIM on the
// demo's films; and WebP's quality (0..100).
var (
	x264 = []int{17, 20, 25}
	vp9  = []int{20, 26, 34}
	av1  = []int{20, 27, 36}
	webp = []int{95, 88, 75}

	jpegs = []int{92, 85, 72} // of the photographs in a web piece
)

// order is that in which formats are offered; others follow by name.
var order = []string{MP4, WebM, AV1, GIF, APNG, WebP, Clear, ProRes, SVG, HTML, PNG, JPEG, WebPStill, Frames, SheetPDF, SheetPNG, WAV, MP3, SRT, VTT}

// Ending is how names of files of a format end.
func Ending(format string) string { return cmp.Or(Formats[format].End, format) }

// ByEnding is the format that files are of whose names end so, the first that is offered; empty: none.
func ByEnding(end string) string {
	for _, name := range order {
		if Ending(name) == end {
			return name
		}
	}
	return ""
}

// Limits of a file.
const (
	MinSide   = doc.MinSide
	MaxSide   = doc.MaxSide           // px, of the side that is asked for
	MaxPixels = 8192 * 8192           // of a still
	MaxExact  = 3840 * 2160           // of a frame of what goes round: a writer of GIF holds sixteen bytes a pixel, one of animated PNG six ways to filter it
	MaxVideo  = 139264 * 16 * 16      // pixels of a video's frame: level 6.2 of ITU-T H.264, table A-1
	MaxLength = 10 * 3600 * 1000      // ms of film
	MaxPiece  = 10 * 60 * 1000        // ms of a web piece
	MaxFrames = MaxLength / 1000 * 60 // ten hours at 60 a second
)

// Check returns why a plan cannot be carried out, as a *words.Fault, or nil.
func (p Plan) Check(f *frame.Film) error {
	length := f.Order.Length
	to := p.From + p.length(f)
	format, known := Formats[p.Format]
	switch rate := (doc.Rate{Num: p.RateNum, Den: p.RateDen}); {
	case !known:
		return words.New("export.format", p.Format)
	case p.Width < 1 || p.Height < 1 || p.Width > 2*MaxSide || p.Height > 2*MaxSide || p.Width*p.Height > format.MaxPixels:
		return words.New("export.too-large", p.Width, p.Height)
	case format.Even && (p.Width%2 != 0 || p.Height%2 != 0):
		return words.New("export.odd")
	case format.Still && (p.From < 0 || p.From > length):
		return words.New("export.still", length)
	case format.Still:
		return nil
	case !rate.Valid():
		return words.New("export.rate")
	case p.From < 0 || to <= p.From || to > length:
		return words.New("export.range", length)
	case to-p.From > MaxLength || p.lasts(f) > MaxLength:
		return words.New("export.too-long", MaxLength/3600000)
	case format.Piece && to-p.From > MaxPiece:
		return words.New("export.piece-long", MaxPiece/60000)
	case p.Frames(f) > MaxFrames || motion.Frames(p.lasts(f), p.RateNum, p.RateDen) > MaxFrames:
		return words.New("export.frames", p.Frames(f), MaxFrames)
	}
	return nil
}

// Frames returns how many frames the rate makes of the part of the film. A file has others where some are timed by hand; see Sequence.
func (p Plan) Frames(f *frame.Film) int64 {
	if Formats[p.Format].Still {
		return 1
	}
	return motion.Frames(p.length(f), p.RateNum, p.RateDen)
}

// Size returns the size of a film's frames at a height, both sides even.
func Size(f *doc.Film, height int) (w, h int) {
	return even(float64(f.Width) * float64(height) / float64(f.Height)), even(float64(height))
}

// SizeAcross is Size at a width.
func SizeAcross(f *doc.Film, width int) (w, h int) {
	return even(float64(width)), even(float64(f.Height) * float64(width) / float64(f.Width))
}

// restAtEnd is how long the last frame of a GIF rests whose end does not meet its start, in ms.
const restAtEnd = 1000

// EndPause returns how long, in ms, the last frame of a file rests before it begins again: of a GIF what the document asks for, else nothing
// where it goes round or its end meets its start. Other files, and what plays once, do not rest.
func EndPause(f *frame.Film, format string, once bool) int64 {
	switch asked := f.Doc.Film.EndPause; {
	case !Formats[format].Rests || once:
		return 0
	case asked != nil:
		return *asked
	case f.Doc.Film.Loop || meets(f):
		return 0
	}
	return restAtEnd
}

// meets reports whether the film's end shows what its start shows, numbers within 1e-6.
func meets(f *frame.Film) bool {
	a, b := f.Player(), f.Player()
	x, y := a.At(motion.Millis(0), frame.View{Scale: 1}), b.At(motion.Millis(f.Order.Length), frame.View{Scale: 1})
	return slices.Equal(x.Codes, y.Codes) && slices.EqualFunc(x.Numbers, y.Numbers, func(p, q float64) bool { return math.Abs(p-q) <= 1e-6 })
}
