package work_test

import (
	"os"
	"strconv"
	"strings"
	"testing"

	"coldember/internal/doc"
	"coldember/internal/edit"
	"coldember/internal/text"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAShopIsToldWhatIsNew once: a new one nothing, one of an older program all of it, also where it never changed a setting.
func TestAShopIsToldWhatIsNew(t *testing.T) {
	w, _ := fresh(t)
	news, err := w.News(ctx)
	require.NoError(t, err)
	assert.Empty(t, news)
	shop, err := w.Shop(ctx)
	require.NoError(t, err)
	assert.Equal(t, 1, shop.Doc.Walk, "a newcomer is walked through")
	require.NoError(t, w.Updated(ctx))
	news, err = w.News(ctx)
	require.NoError(t, err)
	require.Len(t, news, doc.NewestNews)
	assert.Equal(t, "news."+strconv.Itoa(doc.NewestNews), news[0])
	shop, err = w.EditShop(ctx, 1, []edit.Edit{{Field: "newsSeen", Text: strconv.Itoa(doc.NewestNews - 1)}})
	require.NoError(t, err)
	assert.Zero(t, shop.Doc.Walk)
	require.NoError(t, w.Updated(ctx), "a second time changes nothing")
	news, err = w.News(ctx)
	require.NoError(t, err)
	assert.Len(t, news, 1)
	_, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "walk", Text: "6"}})
	require.Error(t, err)
	_, err = w.EditShop(ctx, shop.Version, []edit.Edit{{Field: "newsSeen", Text: "-1"}})
	require.Error(t, err)
	list, err := os.ReadFile("../../docs/news.md")
	require.NoError(t, err)
	for n := 1; n <= doc.NewestNews; n++ {
		assert.True(t, text.Has("news."+strconv.Itoa(n)))
		assert.Contains(t, string(list), "- "+text.Say("news."+strconv.Itoa(n), nil)+"\n")
	}
	assert.Equal(t, doc.NewestNews, strings.Count(string(list), "\n- "))
}
