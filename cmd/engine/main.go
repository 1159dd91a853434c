//go:build js && wasm

// Command engine is the core for the browser: a thin shell of calls on the global object capstanEngine. Answers and display lists cross as
// plain memory (answers.go), commands as JSON, since they are sent on. Every call returns {error} with words or its result; a panic comes
// back as an error and leaves the last good state.
package main

import (
	"runtime/debug"
	"slices"
	"strings"
	"syscall/js"
	"unsafe"

	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/delivery"
	"capstan/core/doc"
	"capstan/core/edit"
	"capstan/core/fields"
	"capstan/core/frame"
	"capstan/core/geom"
	"capstan/core/gesture"
	"capstan/core/ink"
	"capstan/core/intent/arrange"
	"capstan/core/intent/joining"
	"capstan/core/intent/looks"
	"capstan/core/intent/moves"
	"capstan/core/intent/points"
	"capstan/core/intent/scenes"
	"capstan/core/intent/sounds"
	"capstan/core/overlay"
	"capstan/core/patch"
	"capstan/core/scope"
	"capstan/core/session"
	"capstan/core/sound"
	"capstan/core/sum"
	"capstan/core/view"
	"capstan/core/words"
)

var (
	s       = session.New()
	codes   = js.Global().Get("Uint8Array")
	buffers [2]js.Value // codes and numbers, as bytes, grown when needed
	sizes   [2]int

	pictures []string // that lists refer to, as the page was last told
)

func main() {
	// One thread does everything here, so a collection is a pause: rather few of them, for the price of some memory.
	debug.SetGCPercent(400)
	e := js.Global().Get("Object").New()
	on := func(name string, f func(args []js.Value) (any, error)) {
		e.Set(name, js.FuncOf(func(_ js.Value, args []js.Value) (out any) {
			defer func() {
				if r := recover(); r != nil {
					out = failure(words.New("engine.stumbled", r))
				}
			}()
			v, err := f(args)
			if err != nil {
				return failure(err)
			}
			switch v := v.(type) {
			case js.Value:
				return v
			case jsontext.Value: // a document's or a command's, to be handed on as it is
				return string(v)
			}
			at, err := answer(v)
			if err != nil {
				return failure(err)
			}
			return at
		}))
	}
	on("addFont", func(a []js.Value) (any, error) {
		data := make([]byte, a[3].Length())
		js.CopyBytesToGo(data, a[3])
		return true, s.AddFont(a[0].String(), a[1].Int(), a[2].Bool(), data)
	})
	on("addOwnFont", func(a []js.Value) (any, error) {
		data := make([]byte, a[1].Length())
		js.CopyBytesToGo(data, a[1])
		return true, s.AddOwnFont(a[0].String(), data)
	})
	on("fontsWanted", func([]js.Value) (any, error) { return s.FontsWanted(), nil })
	on("familiesWanted", func([]js.Value) (any, error) { return append([]string{}, s.FamiliesWanted()...), nil })
	on("familiesUsed", func([]js.Value) (any, error) { return s.FamiliesUsed(), nil })
	on("recompile", func([]js.Value) (any, error) { return true, s.Recompile() })
	on("open", func(a []js.Value) (any, error) {
		var sent struct {
			Document jsontext.Value `json:"document"`
			Revision int64          `json:"revision"`
		}
		if err := json.Unmarshal([]byte(a[0].String()), &sent); err != nil {
			return nil, words.New("answer.unreadable", err)
		}
		return sent.Revision, s.Open(sent.Document)
	})
	on("apply", func(a []js.Value) (any, error) {
		c, err := edit.Read([]byte(a[0].String()))
		if err != nil {
			return nil, err
		}
		return s.Carry(c, row(a[1:4]), a[4].Bool())
	})
	on("run", func(a []js.Value) (any, error) {
		if a[6].Bool() {
			s.ClearDraft()
		}
		return s.Run(a[0].String(), []byte(a[1].String()), row(a[2:5]), a[5].Bool())
	})
	on("carryOut", func(a []js.Value) (any, error) {
		c, err := edit.Read([]byte(a[0].String()))
		if err != nil {
			return nil, err
		}
		return s.Apply(c)
	})
	on("back", func(a []js.Value) (any, error) { return s.Back(a[0].Bool()) })
	on("keepSteps", func([]js.Value) (any, error) {
		raw, err := s.KeepSteps()
		return string(raw), err
	})
	on("bringSteps", func(a []js.Value) (any, error) { return true, s.BringSteps([]byte(a[0].String())) })
	on("acknowledge", func([]js.Value) (any, error) { return true, s.Acknowledge() })
	on("catchUp", func(a []js.Value) (any, error) {
		var patches []patch.Patch
		if err := json.Unmarshal([]byte(a[0].String()), &patches); err != nil {
			return nil, words.New("pending.unreadable", err)
		}
		return s.CatchUp(patches, a[1].Bool())
	})
	on("draft", func(a []js.Value) (any, error) {
		c, err := edit.Read([]byte(a[0].String()))
		if err != nil {
			return nil, err
		}
		return s.TryCommand(c, a[1].Bool()), nil
	})
	on("try", func(a []js.Value) (any, error) { return s.Try(a[0].String(), []byte(a[1].String()), a[2].Bool()), nil })
	on("changing", func(a []js.Value) (any, error) {
		if err := s.Changing(list(a[0])); err != nil {
			return nil, err
		}
		return s.All(), nil
	})
	on("showFilm", func(a []js.Value) (any, error) { return true, s.ShowFilm(a[0].String()) })
	on("clearDraft", func(a []js.Value) (any, error) { s.ClearDraft(); return s.Drafted("", a[0].Bool()), nil })
	on("newID", func([]js.Value) (any, error) { return s.NewID(), nil })
	on("film", func([]js.Value) (any, error) { return s.FilmView(), nil })
	on("colours", func([]js.Value) (any, error) { return s.DocumentColours(), nil })
	on("rows", func(a []js.Value) (any, error) {
		if a[1].Bool() {
			return s.Rows(moment(a[0])), nil
		}
		return s.RowsHere(moment(a[0])), nil
	})
	on("selection", func(a []js.Value) (any, error) { return s.Selection(moment(a[0]), list(a[1])), nil })
	on("overlay", func(a []js.Value) (any, error) { return s.OverlayView(moment(a[0]), list(a[1])), nil })
	on("watch", func(a []js.Value) (any, error) {
		return s.Watch(session.Watched{Moment: moment(a[0]), Threads: list(a[1]), Ghosts: a[2].Bool(), Ends: a[3].Bool(), Ground: a[4].Bool(), All: a[5].Bool(), Outline: a[6].String()}), nil
	})
	on("all", func([]js.Value) (any, error) { return s.All(), nil })
	on("sceneAt", func(a []js.Value) (any, error) { return s.SceneIndex(moment(a[0])), nil })
	on("hit", func(a []js.Value) (any, error) {
		return s.Hit(moment(a[0]), geom.Point{X: a[1].Float(), Y: a[2].Float()}, a[3].Float(), list(a[4])...), nil
	})
	on("under", func(a []js.Value) (any, error) {
		return s.UnderView(moment(a[0]), geom.Point{X: a[1].Float(), Y: a[2].Float()}, a[3].Float()), nil
	})
	on("selectable", func(a []js.Value) (any, error) { return s.AllView(moment(a[0]), a[1].String()), nil })
	on("forward", func(a []js.Value) (any, error) { return s.Forward(moment(a[0]), list(a[1])), nil })
	on("alike", func(a []js.Value) (any, error) { return s.Alike(moment(a[0]), list(a[1]), a[2].String()), nil })
	on("aids", func(a []js.Value) (any, error) {
		s.SetAids(scope.Aids{Grid: a[0].Float(), Safe: a[1].Bool()})
		return s.SafeAreas(), nil
	})
	on("later", func(a []js.Value) (any, error) {
		var changes patch.Patch
		if err := json.Unmarshal([]byte(a[0].String()), &changes); err != nil {
			return nil, err
		}
		return scenes.Later(s.Desk, changes), nil
	})
	on("within", func(a []js.Value) (any, error) {
		b := geom.Box{Min: geom.Point{X: a[1].Float(), Y: a[2].Float()}, Max: geom.Point{X: a[3].Float(), Y: a[4].Float()}}
		return s.Within(moment(a[0]), b, a[5].String()), nil
	})
	on("delivery", func(a []js.Value) (any, error) {
		var ask delivery.Ask
		if err := json.Unmarshal([]byte(a[0].String()), &ask); err != nil {
			return nil, err
		}
		return s.DeliveryView(ask), nil
	})
	on("markup", func(a []js.Value) (any, error) {
		var ask delivery.Ask
		if err := json.Unmarshal([]byte(a[0].String()), &ask); err != nil {
			return nil, err
		}
		return s.Markup(ask, a[1].String()), nil
	})
	on("deliveryCells", func(a []js.Value) (any, error) {
		var ask delivery.Ask
		if err := json.Unmarshal([]byte(a[0].String()), &ask); err != nil {
			return nil, err
		}
		return s.DeliveryCells(ask, int64(a[1].Int()), int64(a[2].Int())), nil
	})
	on("mix", func(a []js.Value) (any, error) {
		m := s.Mix(int64(a[0].Float()), a[1].Int(), list(a[2]), sound.Level{Gain: a[3].Float(), Limited: a[4].Bool()})
		o := js.Global().Get("Object").New()
		o.Set("samples", copyOut(0, bytesOf(m.Samples)))
		wants := js.Global().Get("Array").New()
		for _, p := range m.Wants {
			wants.Call("push", p.Media, p.Piece)
		}
		o.Set("wants", wants)
		return o, nil
	})
	on("snapSound", func(a []js.Value) (any, error) {
		return sounds.SnapSound(s.Desk, moment(a[0]), list(a[1]), a[2].String(), int64(a[3].Int()), int64(a[4].Int())), nil
	})
	on("subtitles", func(a []js.Value) (any, error) {
		file := make([]byte, a[0].Length())
		js.CopyBytesToGo(file, a[0])
		return sound.ReadSubtitles(file)
	})
	on("tape", func(a []js.Value) (any, error) {
		samples := make([]float32, a[2].Length()/4)
		js.CopyBytesToGo(bytesOf(samples), a[2])
		s.Tapes.Give(sound.Piece{Media: a[0].String(), Piece: int64(a[1].Int())}, samples)
		return true, nil
	})
	on("closes", func([]js.Value) (any, error) { return delivery.Closes(s.Film), nil })
	on("fits", func([]js.Value) (any, error) { return moves.Fits(s.Desk), nil })
	on("choices", func([]js.Value) (any, error) { return delivery.Chosen(), nil })
	on("formats", func([]js.Value) (any, error) { return delivery.Kinds(), nil })
	on("offered", func(a []js.Value) (any, error) { return delivery.Offer(s.Film, a[0].String()), nil })
	on("targets", func(a []js.Value) (any, error) {
		return moves.Targets(s.Desk, a[0].String(), a[1].String(), a[2].String()), nil
	})
	on("meets", func(a []js.Value) (any, error) { return moves.Meetings(s.Desk, list(a[0])), nil })
	on("shared", func(a []js.Value) (any, error) { return s.SharedView(list(a[0])), nil })
	on("step", func(a []js.Value) (any, error) { return s.Step(a[0].Float(), int64(a[1].Int())), nil })
	on("snapBar", func(a []js.Value) (any, error) {
		return moves.SnapBar(s.Desk, moment(a[0]), list(a[1]), a[2].String(), int64(a[3].Int()), int64(a[4].Int())), nil
	})
	on("easing", func(a []js.Value) (any, error) { return encoded(view.CurveOf(a[0].String())) })
	on("profile", func(a []js.Value) (any, error) { return s.Profile(a[0].String()), nil })
	on("momentOf", func(a []js.Value) (any, error) {
		at, ok := s.MomentOf(a[0].String(), a[1].String())
		if !ok {
			return nil, words.New("move.gone")
		}
		return at, nil
	})
	on("span", func(a []js.Value) (any, error) { return s.Span(moment(a[0]), list(a[1])), nil })
	on("endsFrame", func(a []js.Value) (any, error) {
		return listValue(s.EndsFrame(moment(a[0]), list(a[1]), a[2].Float())), nil
	})
	on("masksFrame", func(a []js.Value) (any, error) {
		return listValue(s.MasksFrame(moment(a[0]), list(a[1]), a[2].Float())), nil
	})
	on("onNow", func(a []js.Value) (any, error) { s.SetOnNow(a[0].Bool()); return true, nil })
	on("goesBehind", func(a []js.Value) (any, error) { s.SetBehind(a[0].String(), a[1].String()); return true, nil })
	on("grows", func(a []js.Value) (any, error) { s.SetGrows(list(a[0])); return true, nil })
	on("summary", func(a []js.Value) (any, error) { return s.Summary(a[0].Int()), nil })
	on("along", func(a []js.Value) (any, error) { return s.Along(moment(a[0]), a[1].String(), a[2].String()), nil })
	on("outlineAt", func(a []js.Value) (any, error) { return s.OutlineAt(a[0].String(), a[1].String(), a[2].Float()), nil })
	on("prepare", func([]js.Value) (any, error) { return s.Shown.Prepare(), nil })
	on("pairsInto", func(a []js.Value) (any, error) { return scenes.PairsInto(s.Desk, a[0].Int()), nil })
	on("ownScenes", func(a []js.Value) (any, error) { return s.OwnScenes(list(a[0]), a[1].String()), nil })
	on("solo", func(a []js.Value) (any, error) { s.Solo(list(a[0])); return true, nil })
	on("copyMoves", func(a []js.Value) (any, error) {
		return encoded(moves.CopyMoves(s.Desk, moment(a[0]), list(a[1]), list(a[2])))
	})
	on("copyScenes", func(a []js.Value) (any, error) { return encoded(scenes.Copy(s.Desk, list(a[0]))) })
	on("copy", func(a []js.Value) (any, error) { return encoded(arrange.Copy(s.Desk, moment(a[0]), list(a[1]))) })
	on("intent", func(a []js.Value) (any, error) {
		return told(s.Intent(a[0].String(), moment(a[1]), []byte(a[2].String())))
	})
	on("begin", func(a []js.Value) (any, error) {
		return true, s.Begin(a[0].String(), moment(a[1]), list(a[2]), a[3].String(), a[4].String(), geom.Point{X: a[5].Float(), Y: a[6].Float()})
	})
	on("update", func(a []js.Value) (any, error) {
		return s.Drag(geom.Point{X: a[0].Float(), Y: a[1].Float()}, gesture.Modifiers{Shift: a[2].Bool(), Alt: a[3].Bool(), Reach: a[4].Float(), Free: a[5].Bool()})
	})
	on("end", func([]js.Value) (any, error) { return told(s.EndDrag(), nil) })
	on("pen", func(a []js.Value) (any, error) {
		return s.Pen(moment(a[0]), a[1].String(), geom.Point{X: a[2].Float(), Y: a[3].Float()}, gesture.Modifiers{Shift: a[4].Bool(), Alt: a[5].Bool()}, a[6].Float(), a[7].String()), nil
	})
	on("penEnd", func(a []js.Value) (any, error) { return told(s.EndPen(moment(a[0])), nil) })
	on("penDrop", func([]js.Value) (any, error) { s.PenDrop(); return true, nil })
	on("outlineOf", func(a []js.Value) (any, error) {
		return bytesValue(bytesOf(s.Outline(moment(a[0]), a[1].String()).Numbers())), nil
	})
	on("simplifiedTo", func(a []js.Value) (any, error) {
		return points.Simplified(s.Desk, moment(a[0]), a[1].String(), a[2].Float()), nil
	})
	on("spotAt", func(a []js.Value) (any, error) {
		return s.SpotAt(moment(a[0]), a[1].String(), geom.Point{X: a[2].Float(), Y: a[3].Float()}), nil
	})
	on("writing", func(a []js.Value) (any, error) {
		return s.WritingView(moment(a[0]), a[1].String(), a[2].Int(), a[3].Int()), nil
	})
	on("writingAt", func(a []js.Value) (any, error) {
		return s.WritingAt(moment(a[0]), a[1].String(), geom.Point{X: a[2].Float(), Y: a[3].Float()}, a[4].String(), a[5].Float()), nil
	})
	on("writingStep", func(a []js.Value) (any, error) {
		return s.WritingStep(moment(a[0]), a[1].String(), a[2].Int(), a[3].String()), nil
	})
	on("time", func(a []js.Value) (any, error) { return sum.Time(a[0].String()) })
	on("sum", func(a []js.Value) (any, error) { return sum.Read(a[0].String(), a[1].Float(), a[2].String()) })
	on("combining", func(a []js.Value) (any, error) {
		return joining.CombiningView(s.Desk, moment(a[0]), list(a[1]), a[2].String()), nil
	})
	on("lookOf", func(a []js.Value) (any, error) { return looks.LookOf(s.Desk, moment(a[0]), a[1].String()), nil })
	on("tones", func(a []js.Value) (any, error) { return ink.Tones(a[0].String()), nil })
	on("fields", func([]js.Value) (any, error) { return fields.Described(), nil })
	on("shapes", func([]js.Value) (any, error) { return overlay.ShapeSigns(), nil })
	on("frame", func(a []js.Value) (any, error) { return listValue(s.Frame(moment(a[0]), a[1].Float())), nil })
	on("thumb", func(a []js.Value) (any, error) { return listValue(s.Thumb(a[0].Int(), a[1].Float())), nil })
	on("only", func(a []js.Value) (any, error) {
		l, box := s.Only(a[0].String(), a[1].Float())
		v := listValue(l)
		v.Set("box", js.ValueOf([]any{box.Min.X, box.Min.Y, box.W(), box.H()}))
		return v, nil
	})
	on("gallery", func(a []js.Value) (any, error) { return s.OpenGallery(moment(a[0]), list(a[1]), a[2].String()), nil })
	on("galleryOfPages", func(a []js.Value) (any, error) { return s.OpenPages(a[0].Int()), nil })
	on("sought", func(a []js.Value) (any, error) { return s.Sought(a[0].String()), nil })
	on("closeGallery", func([]js.Value) (any, error) { s.CloseGallery(); return true, nil })
	on("smallFrame", func(a []js.Value) (any, error) {
		l := s.SmallFrame(a[0].Int(), a[1].Float(), a[2].Float())
		if l == nil {
			return nil, words.New("gallery.gone")
		}
		return listValue(l), nil
	})
	on("behind", func(a []js.Value) (any, error) { return listValue(s.Behind(moment(a[0]), a[1].Float())), nil })
	on("tried", func([]js.Value) (any, error) {
		from, to, _ := s.Tried()
		return []int64{from, to}, nil
	})
	on("outline", func(a []js.Value) (any, error) {
		p := s.OutlineOf(uint32(a[0].Int()))
		if p == nil {
			return nil, words.New("outline.none", a[0].Int())
		}
		return pathValue(p), nil
	})
	js.Global().Set("capstanEngine", e)
	if f := js.Global().Get("capstanEngineReady"); f.Type() == js.TypeFunction {
		f.Invoke()
	}
	select {}
}

// told is a command as the page gets it, to hand it on to the server.
func told(c edit.Command, err error) (any, error) {
	if err != nil || c == nil {
		return nil, err
	}
	raw, err := edit.Write(c)
	return jsontext.Value(raw), err
}

// encoded is part of a document as it is stored, with what this program does not know of it.
func encoded(v any) (any, error) {
	raw, err := doc.Encode(v)
	return jsontext.Value(raw), err
}

// row reads the row of small steps that a command belongs to.
func row(a []js.Value) session.Row {
	return session.Row{Of: a[0].String(), Now: a[1].Float(), Pause: a[2].Float()}
}

func failure(err error) js.Value {
	o := js.Global().Get("Object").New()
	o.Set("error", err.Error())
	return o
}

// moment reads {rest, scene, time}.
func moment(v js.Value) scope.Moment {
	film := ""
	if f := v.Get("film"); f.Type() == js.TypeString {
		film = f.String()
	}
	return scope.Moment{Film: film, Rest: v.Get("rest").Bool(), Scene: v.Get("scene").Int(), Time: v.Get("time").Float()}
}

// list reads a list of ids and the like in two calls, as each costs some microseconds and there may be a thousand of them.
func list(v js.Value) []string {
	if v.Length() == 0 {
		return []string{}
	}
	return strings.Split(v.Call("join", "\x00").String(), "\x00")
}

func anys(list []string) []any {
	out := make([]any, len(list))
	for i, v := range list {
		out[i] = v
	}
	return out
}

// copyOut copies raw memory into a byte array of the page that is kept from frame to frame.
func copyOut(slot int, b []byte) js.Value {
	if sizes[slot] < max(len(b), 1) { // an empty list has a buffer, too
		sizes[slot] = len(b) + len(b)/2 + 1024
		buffers[slot] = codes.New(sizes[slot])
	}
	js.CopyBytesToJS(buffers[slot], b)
	return buffers[slot]
}

// listValue hands a display list over as {codes, numbers: bytes of Uint32 and Float64, with their counts, width, height}.
func listValue(l *frame.List) js.Value {
	o := js.Global().Get("Object").New()
	o.Set("width", l.Width)
	o.Set("height", l.Height)
	o.Set("codeCount", len(l.Codes))
	o.Set("numberCount", len(l.Numbers))
	o.Set("codes", copyOut(0, bytesOf(l.Codes)))
	o.Set("numbers", copyOut(1, bytesOf(l.Numbers)))
	if !slices.Equal(s.Shown.Pictures, pictures) {
		pictures = slices.Clone(s.Shown.Pictures)
		o.Set("pictures", js.ValueOf(anys(pictures)))
	}
	return o
}

// bytesOf views a slice of plain numbers, or of points of two, as bytes; WebAssembly is little-endian, as typed arrays are.
func bytesOf[T uint32 | float32 | float64 | geom.Verb | geom.Point](v []T) []byte {
	if len(v) == 0 {
		return nil
	}
	return unsafe.Slice((*byte)(unsafe.Pointer(&v[0])), len(v)*int(unsafe.Sizeof(v[0])))
}

func bytesValue(b []byte) js.Value {
	v := codes.New(len(b))
	js.CopyBytesToJS(v, b)
	return v
}

// pathValue hands an outline over as {verbs, points}.
func pathValue(p *geom.Path) js.Value {
	o := js.Global().Get("Object").New()
	o.Set("verbs", bytesValue(bytesOf(p.Verbs)))
	o.Set("points", bytesValue(bytesOf(p.Points)))
	return o
}
