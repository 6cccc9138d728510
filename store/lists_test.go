package store

import (
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every list of the store goes along an index, so that a page of a long one costs what one of a
// short one does: its SQL is taken from the source, so that none is forgotten.
func TestListsGoAlongTheirIndex(t *testing.T) {
	s := open(t, t.TempDir())
	files, err := filepath.Glob("*.go")
	require.NoError(t, err)
	query := regexp.MustCompile("(?s)summaries\\(s, `(.*?)`, p,")
	lists := 0
	for _, file := range files {
		source, err := os.ReadFile(file)
		require.NoError(t, err)
		for _, found := range query.FindAllStringSubmatch(string(source), -1) {
			lists++
			text := strings.ReplaceAll(found[1], "`+tagged+`", tagged)
			rows, err := s.db.Raw("EXPLAIN QUERY PLAN " + text + " LIMIT 50 OFFSET 100").Rows()
			require.NoError(t, err, text)
			var plan []string
			for rows.Next() {
				var id, parent, unused int
				var detail string
				require.NoError(t, rows.Scan(&id, &parent, &unused, &detail))
				plan = append(plan, detail)
			}
			assert.NotContains(t, strings.Join(plan, "; "), "TEMP B-TREE", file)
			assert.Contains(t, strings.Join(plan, "; "), "_order", file)
			require.NoError(t, rows.Close())
		}
	}
	assert.Equal(t, 5, lists, "charts, licks, lines, sets and takes")
}

// What was a text with blanks between is the same list, over every text that there could be.
func TestLengthsOfBarsBecomeAList(t *testing.T) {
	s := open(t, t.TempDir())
	chart := Chart{Title: "Uneven", Key: "C", Feel: "shuffle", Tempo: 96, Beats: 4, Text: "| C7 | 2/4 F7 | 4/4 C7 |"}
	require.NoError(t, s.CreateChart(&chart))
	for text, want := range map[string][]int{"": nil, "4 2 4": {4, 2, 4}, "3": {3}, "12 12": {12, 12}, "4 x": nil} {
		require.NoError(t, s.db.Exec("UPDATE charts SET lengths = ?, bar_lengths = '[]'", text).Error)
		require.NoError(t, listLengths(s.db))
		got, err := s.Chart(chart.ID)
		require.NoError(t, err)
		assert.Equal(t, fmt.Sprint(want), fmt.Sprint(got.Lengths), text)
		if len(want) > 0 {
			assert.Equal(t, text, strings.Trim(fmt.Sprint(got.Lengths), "[]"), "printed as it was")
		}
		list, err := s.Charts(All)
		require.NoError(t, err)
		assert.Equal(t, []any{fmt.Sprint(want), ""}, []any{fmt.Sprint(list[0].Lengths), list[0].Problem}, text)
	}
	// A chart's own are what its text says.
	again, err := s.ChangeChart(chart.ID, chart.Tag, func(c *Chart) error { c.Text = "| C7 | F7 |"; return nil })
	require.NoError(t, err)
	assert.Empty(t, again.Lengths)
}
