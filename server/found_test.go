package server

import (
	"fmt"
	"net/url"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Every list is sought, page by page along its own links, and what is found is what the whole list has of it.
func TestListsAreSought(t *testing.T) {
	srv := serve(t)
	for range 3 {
		require.Equal(t, 201, ask(t, srv, "POST", "/api/sets", map[string]any{"title": "An evening", "items": []any{}}, nil).StatusCode)
	}
	type row struct {
		ID    uint
		Title string
	}
	for path, word := range map[string]string{"/api/charts": "low wat", "/api/licks": "lantern", "/api/lines": "slip", "/api/sets": "EVENING", "/api/takes": "nothing of that"} {
		var all []row
		ask(t, srv, "GET", path+"?limit=1000", nil, &all)
		var want, got []uint
		for _, r := range all {
			if title := strings.ToLower(r.Title); strings.Contains(title, strings.Fields(strings.ToLower(word))[0]) {
				want = append(want, r.ID)
			}
		}
		next := path + "?limit=1&find=" + url.QueryEscape(word)
		for next != "" {
			var page []row
			resp := ask(t, srv, "GET", next, nil, &page)
			require.Equal(t, 200, resp.StatusCode, next)
			assert.Equal(t, fmt.Sprint(len(want)), resp.Header.Get("Total-Count"), next)
			for _, r := range page {
				got = append(got, r.ID)
			}
			link, _, _ := strings.Cut(resp.Header.Get("Link"), ">")
			next = strings.TrimPrefix(link, "<")
		}
		assert.Equal(t, want, got, path)
	}
	for _, bad := range []string{"?order=longest", "?find=" + strings.Repeat("a", 201), "?tag=" + strings.Repeat("a", 81)} {
		assert.Equal(t, 422, ask(t, srv, "GET", "/api/licks"+bad, nil, nil).StatusCode, bad)
	}
}

// The tags on the shelf are those that licks are found by.
func TestTagsOfLicks(t *testing.T) {
	srv := serve(t)
	var tags LickTags
	ask(t, srv, "GET", "/api/licks/tags", nil, &tags)
	require.NotEmpty(t, tags.Tags)
	for i, tag := range tags.Tags {
		assert.True(t, i == 0 || tag.N <= tags.Tags[i-1].N)
		var rows []LickRow
		resp := ask(t, srv, "GET", "/api/licks?limit=1000&tag="+url.QueryEscape(tag.Name), nil, &rows)
		assert.Equal(t, []string{fmt.Sprint(tag.N), fmt.Sprint(tag.N)}, []string{resp.Header.Get("Total-Count"), fmt.Sprint(len(rows))}, tag.Name)
		for _, r := range rows {
			assert.Contains(t, r.Tags, tag.Name)
		}
	}
	resp := ask(t, srv, "GET", "/api/licks?limit=1", nil, nil)
	assert.Equal(t, fmt.Sprint(tags.Total), resp.Header.Get("Total-Count"))
}

// In each order licks come as it says, those of which it is not known last.
func TestOrdersOfLicks(t *testing.T) {
	srv := serve(t)
	list := func(order string) (rows []LickRow) {
		ask(t, srv, "GET", "/api/licks?limit=1000&order="+order, nil, &rows)
		return rows
	}
	easiest, hardest, begins := list("easiest"), list("hardest"), list("begins")
	require.Greater(t, len(easiest), 20)
	for i := 1; i < len(easiest); i++ {
		assert.True(t, easiest[i].Level == 0 || easiest[i-1].Level <= easiest[i].Level && easiest[i-1].Level != 0, i)
		assert.GreaterOrEqual(t, hardest[i-1].Level, hardest[i].Level)
		assert.LessOrEqual(t, begins[i-1].Begins, begins[i].Begins)
	}
}
