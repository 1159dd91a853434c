// Package variant makes variants of a project from a table: it reads tables, says what their columns can fill, fills them in, and says of each variant what
// does not fit or is missing.
package variant

import (
	"encoding/csv"
	"errors"
	"io"
	"slices"
	"strings"
	"unicode/utf8"

	"capstan/core/doc"
	"capstan/core/words"
)

// MaxText is how many bytes a table may have that is read.
const MaxText = 8 << 20

// separators of cells, in the order in which they are preferred where a table says neither.
var separators = []rune{'\t', ';', ','}

// Read reads a table as RFC 4180 and encoding/csv have it, and as spreadsheets write and copy it: cells parted by commas, semicolons or tabs, whichever the
// first line has most of outside of quotes, or says by sep=; any line ends; with or without a byte-order mark. Its first row names the columns. Rows without
// a cell that has something, and columns with neither name nor cells, are left out; rows that are short are filled up. What a cell begins with means
// nothing: a formula is its text. What cannot be read is a *words.Fault.
func Read(text string) (*doc.Table, error) {
	if len(text) > MaxText {
		return nil, words.New("table.large", MaxText>>20)
	}
	text = strings.TrimPrefix(text, "\ufeff")
	if !utf8.ValidString(text) || strings.ContainsRune(text, 0) {
		return nil, words.New("table.encoding")
	}
	if !strings.Contains(text, "\n") {
		text = strings.ReplaceAll(text, "\r", "\n")
	}
	first, rest, _ := strings.Cut(text, "\n")
	separator := separatorOf(text)
	if line := strings.TrimRight(first, "\r"); len(line) == 5 && strings.EqualFold(line[:4], "sep=") {
		separator, text = rune(line[4]), rest
	}
	r := csv.NewReader(strings.NewReader(text))
	r.FieldsPerRecord = -1
	r.Comma = separator
	var rows [][]string
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			var at *csv.ParseError
			if errors.As(err, &at) {
				return nil, words.New("table.quote", at.Line, at.Err)
			}
			return nil, words.New("table.quote", 1, err)
		}
		if slices.ContainsFunc(row, func(v string) bool { return strings.TrimSpace(v) != "" }) {
			rows = append(rows, row)
		}
	}
	return shaped(rows)
}

// separatorOf is what parts the cells of the first line.
func separatorOf(text string) rune {
	count, quoted := map[rune]int{}, false
	for _, c := range text {
		if c == '"' {
			quoted = !quoted
		}
		if quoted {
			continue
		}
		if c == '\n' {
			break
		}
		count[c]++
	}
	best := ','
	for _, s := range separators {
		if count[s] > count[best] {
			best = s
		}
	}
	return best
}

// shaped makes a table of rows, the first of which has the names.
func shaped(rows [][]string) (*doc.Table, error) {
	if len(rows) == 0 {
		return nil, words.New("table.empty")
	}
	head, body := rows[0], rows[1:]
	t := &doc.Table{Columns: []string{}, Rows: [][]string{}}
	var at []int // of the columns that are kept
	for k, name := range head {
		name = strings.TrimSpace(name)
		if name == "" {
			if slices.ContainsFunc(body, func(r []string) bool { return k < len(r) && strings.TrimSpace(r[k]) != "" }) {
				return nil, words.New("table.unnamed", k+1)
			}
			continue
		}
		if n := len([]rune(name)); n > doc.MaxColumn {
			return nil, words.New("table.long", 1, n, string([]rune(name)[:20])+"…", doc.MaxColumn)
		}
		if slices.ContainsFunc(t.Columns, func(o string) bool { return doc.SameColumn(o, name) }) {
			return nil, words.New("table.twice", name)
		}
		t.Columns, at = append(t.Columns, name), append(at, k)
	}
	if len(t.Columns) < 1 || len(t.Columns) > doc.MaxTableColumns {
		return nil, words.New("table.columns", len(t.Columns), doc.MaxTableColumns)
	}
	if len(body) > doc.MaxTableRows {
		return nil, words.New("table.rows", len(body), doc.MaxTableRows)
	}
	for i, r := range body {
		if len(r) > len(head) && slices.ContainsFunc(r[len(head):], func(v string) bool { return strings.TrimSpace(v) != "" }) {
			return nil, words.New("table.row-long", i+1, len(r), len(head))
		}
		row := make([]string, len(at))
		for n, k := range at {
			if k < len(r) {
				row[n] = strings.ReplaceAll(r[k], "\r\n", "\n")
			}
			if c := len([]rune(row[n])); c > doc.MaxTableCell {
				return nil, words.New("table.long", i+1, c, t.Columns[n], doc.MaxTableCell)
			}
		}
		t.Rows = append(t.Rows, row)
	}
	return t, nil
}
