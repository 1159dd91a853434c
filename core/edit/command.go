package edit

import (
	"github.com/go-json-experiment/json"
	"github.com/go-json-experiment/json/jsontext"

	"capstan/core/doc"
	"capstan/core/words"
)

// Command is one change that a person would name, all or nothing. Every command is a struct of this package, whose fields are what it is done
// to and by how much; ids, seeds and times that it needs are among them, so that it makes the same document wherever it is carried out. A
// command is carried out on documents that share with it nothing that either changes: one may be carried out again, on another document.
type Command interface {
	// Op is the command's name on the wire.
	Op() string

	apply(e *editor) error
}

// known are all commands by their names on the wire. A new one is a file, or a part of one, and a line here.
var known = func() map[string]wired {
	all := map[string]wired{}
	for _, w := range []wired{
		wire[RenameProject](),
		wire[SetProject](),
		wire[SetFilm](),
		wire[AddFilm](),
		wire[DeleteFilms](),
		wire[SetTable](),
		wire[SetCell](),
		wire[AddMedia](),
		wire[CreditMedia](),
		wire[CutOut](),
		wire[SplitPicture](),
		wire[AddScene](),
		wire[DuplicateScene](),
		wire[ContinueScene](),
		wire[CutScene](),
		wire[SplitMorph](),
		wire[UnfoldScene](),
		wire[FoldScenes](),
		wire[DeleteScenes](),
		wire[OrderScenes](),
		wire[CopyScene](),
		wire[PasteScenes](),
		wire[KeepShift](),
		wire[SetScenes](),
		wire[AddLayers](),
		wire[DeleteLayers](),
		wire[SetLayers](),
		wire[OrderLayers](),
		wire[GroupLayers](),
		wire[UngroupLayers](),
		wire[DuplicateLayers](),
		wire[PasteLayers](),
		wire[CopyLayers](),
		wire[OutlineShapes](),
		wire[ScaleLayer](),
		wire[CombineLayers](),
		wire[TakeApart](),
		wire[CutThreads](),
		wire[JoinThreads](),
		wire[SetWords](),
		wire[StyleTexts](),
		wire[AddMove](),
		wire[SetMoves](),
		wire[DeleteMoves](),
		wire[MakeRun](),
		wire[OrderRun](),
		wire[AddSounds](),
		wire[SetSound](),
		wire[DeleteSounds](),
		wire[AddCue](),
		wire[SetCue](),
		wire[DeleteCue](),
		wire[ApplyPatch](),
		wire[Batch](),
	} {
		all[w.op] = w
	}
	return all
}()

// wired is how one command is read.
type wired struct {
	op     string
	read   func(raw jsontext.Value) (Command, error)
	fields any // of the command, as they are when none is given
}

// Known returns all commands by their ops, each as an empty value of its type. The page's types are made from them.
func Known() map[string]any {
	all := map[string]any{}
	for op, w := range known {
		all[op] = w.fields
	}
	return all
}

func wire[C any, P interface {
	*C
	Command
}]() wired {
	return wired{P(new(C)).Op(), func(raw jsontext.Value) (Command, error) {
		var v struct {
			Op     string `json:"op"`
			Film   string `json:"film"`
			Fields C      `json:",embed"`
		}
		if err := doc.Strict(raw, &v); err != nil {
			return nil, err
		}
		if v.Film != "" {
			return &In{v.Film, P(&v.Fields)}, nil
		}
		return P(&v.Fields), nil
	}, *new(C)}
}

// Read decodes a command from the wire: {"op": "layer.set", …}. What is no command, and fields that it does not have, are refused: a command
// that is misspelt must not do half of what was meant.
func Read(raw jsontext.Value) (Command, error) {
	if err := doc.CheckNesting(raw); err != nil {
		return nil, words.New("command.none", err)
	}
	return read(raw)
}

func read(raw jsontext.Value) (Command, error) {
	var head struct {
		Op *string `json:"op"`
	}
	if err := json.Unmarshal(raw, &head); err != nil {
		return nil, words.New("command.none", err)
	}
	if head.Op == nil {
		return nil, words.New("command.none", "it has no op")
	}
	f, ok := known[*head.Op]
	if !ok {
		return nil, words.New("command.unknown", *head.Op)
	}
	c, err := f.read(raw)
	if err != nil {
		return nil, words.New("command.unreadable", *head.Op, err)
	}
	return c, nil
}

// Write encodes a command for the wire: its fields beside its op. No command is null.
func Write(c Command) (jsontext.Value, error) {
	if c == nil {
		return jsontext.Value("null"), nil
	}
	var film string
	if in, ok := c.(*In); ok {
		film, c = in.Film, in.Command
	}
	head, err := doc.Encode(struct {
		Op   string `json:"op"`
		Film string `json:"film,omitzero"`
	}{c.Op(), film})
	if err != nil {
		return nil, err
	}
	fields, err := doc.Encode(c)
	if err != nil {
		return nil, words.New("command.unwritable", c.Op(), err)
	}
	raw := head[:len(head)-1]
	if len(fields) > 2 {
		raw = append(raw, ',')
	}
	return append(raw, fields[1:]...), nil
}

// Batch carries out several commands as one, at most four batches deep.
type Batch struct {
	Commands Commands `json:"commands"`
}

// Op is its name on the wire.
func (c *Batch) Op() string { return "batch" }

func (c *Batch) apply(e *editor) error {
	if e.depth++; e.depth > 4 {
		return words.New("command.deep")
	}
	defer func() { e.depth-- }()
	for _, k := range c.Commands {
		if err := e.do(k); err != nil {
			return err
		}
	}
	return nil
}

// All is several commands as one.
func All(list ...Command) Command {
	if len(list) == 1 {
		return list[0]
	}
	return &Batch{list}
}

// Commands are a list of commands, on the wire each with its op.
type Commands []Command

// UnmarshalJSONFrom reads each by its op.
func (l *Commands) UnmarshalJSONFrom(d *jsontext.Decoder) error {
	var all []jsontext.Value
	if err := json.UnmarshalDecode(d, &all); err != nil {
		return err
	}
	*l = make(Commands, len(all))
	for i, raw := range all {
		c, err := read(raw)
		if err != nil {
			return err
		}
		(*l)[i] = c
	}
	return nil
}

// MarshalJSONTo writes each with its op.
func (l Commands) MarshalJSONTo(e *jsontext.Encoder) error {
	if err := e.WriteToken(jsontext.BeginArray); err != nil {
		return err
	}
	for _, c := range l {
		raw, err := Write(c)
		if err != nil {
			return err
		}
		if err := e.WriteValue(raw); err != nil {
			return err
		}
	}
	return e.WriteToken(jsontext.EndArray)
}
