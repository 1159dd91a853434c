package api

import (
	"io"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"capstan/core/variant"
	"capstan/core/words"
)

// mostVariants is how many variants are told at once: each is laid out to find what does not fit.
const mostVariants = 24

// variantRow is a row of the table as its variant is told.
type variantRow struct {
	Row      int               `json:"row"` // from 1
	Name     string            `json:"name"`
	Troubles []variant.Trouble `json:"troubles"`
}

// listVariants answers the project's table, what its columns can fill, and of some rows what is not as they ask for.
func (s *Server) listVariants(c *gin.Context) {
	p, revision, err := s.store.Load(c.Param("id"))
	if err != nil {
		fail(c, err)
		return
	}
	from, err := strconv.Atoi(c.DefaultQuery("from", "0"))
	if err != nil || from < 0 {
		from = 0
	}
	rows := []variantRow{}
	if p.Table != nil {
		film, err := s.film(p, c.Query("film"), 0)
		if err != nil {
			fail(c, err)
			return
		}
		for row := from + 1; row <= min(len(p.Table.Rows), from+mostVariants) && c.Request.Context().Err() == nil; row++ {
			v := variantRow{row, p.Table.RowName(row), []variant.Trouble{}}
			q, troubles, err := variant.Fill(p, row)
			v.Troubles = append(v.Troubles, troubles...)
			if err == nil {
				if filled, e := s.film(q, c.Query("film"), 0); e == nil {
					v.Troubles = append(v.Troubles, variant.Fits(film, filled)...)
				} else {
					err = e
				}
			}
			if err != nil {
				v.Troubles = append(v.Troubles, variant.Trouble{Says: err.Error()})
			}
			rows = append(rows, v)
		}
	}
	fills, without := variant.Fills(p)
	reply(c, http.StatusOK, gin.H{"table": p.Table, "fills": fills, "without": without, "names": variant.Names(p), "rows": rows, "revision": revision, "starts": variant.Starts(p)})
}

// variantFrame answers how a scene of a variant rests.
func (s *Server) variantFrame(c *gin.Context) {
	row, err := strconv.Atoi(c.Param("row"))
	if err != nil {
		row = -1
	}
	scene, err := strconv.Atoi(c.DefaultQuery("scene", "0"))
	if err != nil {
		scene = 0
	}
	p, _, err := s.store.Load(c.Param("id"))
	if err == nil {
		p, _, err = variant.Fill(p, row)
	}
	if err == nil {
		p, err = p.FilmOf(c.Query("film"))
	}
	if err == nil {
		if n := len(p.Film.Shown()); scene < 0 || scene >= n {
			err = words.New("export.scene", scene+1, n)
		}
	}
	var img []byte
	if err == nil {
		img, err = s.picture(c.Request.Context(), p, -1, scene, thumbnailHeight)
	}
	if err != nil {
		fail(c, err)
		return
	}
	c.Header("Cache-Control", "private, max-age=600") // the page asks by revision
	c.Data(http.StatusOK, "image/png", img)
}

// readTable answers a table that was pasted or opened, as it would be kept.
func (s *Server) readTable(c *gin.Context) {
	raw, err := io.ReadAll(http.MaxBytesReader(c.Writer, c.Request.Body, variant.MaxText+1))
	if err != nil {
		fail(c, words.New("table.large", variant.MaxText>>20))
		return
	}
	t, err := variant.Read(string(raw))
	if err != nil {
		fail(c, err)
		return
	}
	reply(c, http.StatusOK, gin.H{"table": t})
}
