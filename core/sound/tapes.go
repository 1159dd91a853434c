package sound

// Tapes is a source of recordings of which the pieces that were used last are held.
type Tapes struct {
	Wants []Piece // that were asked for and are not there, since this was emptied

	held  map[Piece]*held
	round int64
	bytes int
}

// Piece is a part of a recording: PieceFrames of it, or what is left.
type Piece struct {
	Media string `json:"media"`
	Piece int64  `json:"piece"` // counted from its begin
}

// PieceFrames is how many frames a piece has.
const PieceFrames = 1 << 16

// mostHeld is how many bytes of pieces are held.
const mostHeld = 96 << 20

type held struct {
	samples []float32
	used    int64
}

// Give hands a piece over; the one that was used longest ago goes where there is no room.
func (t *Tapes) Give(p Piece, samples []float32) {
	if t.held == nil {
		t.held = map[Piece]*held{}
	}
	if old := t.held[p]; old != nil {
		t.bytes -= 4 * len(old.samples)
	}
	t.round++
	t.held[p] = &held{samples, t.round}
	for t.bytes += 4 * len(samples); t.bytes > mostHeld && len(t.held) > 1; {
		var oldest Piece
		first := true
		for k, v := range t.held {
			if first || v.used < t.held[oldest].used {
				oldest, first = k, false
			}
		}
		t.bytes -= 4 * len(t.held[oldest].samples)
		delete(t.held, oldest)
	}
}

// Read reads frames; see Source. Pieces that are not there are silence.
func (t *Tapes) Read(media string, channels int, from int64, to []float32) bool {
	ok := true
	t.round++
	for n := int64(len(to) / channels); n > 0; {
		p := Piece{media, from / PieceFrames}
		at := from % PieceFrames
		k := min(n, PieceFrames-at)
		part := to[:k*int64(channels)]
		if h := t.held[p]; h != nil {
			h.used = t.round
			if at*int64(channels) < int64(len(h.samples)) {
				copy(part, h.samples[at*int64(channels):])
			}
		} else if ok = false; !t.wanted(p) {
			t.Wants = append(t.Wants, p)
		}
		to, from, n = to[k*int64(channels):], from+k, n-k
	}
	return ok
}

func (t *Tapes) wanted(p Piece) bool {
	for _, w := range t.Wants {
		if w == p {
			return true
		}
	}
	return false
}

var _ Source = &Tapes{}
