package export

import (
	"bytes"
	"errors"
	"fmt"
	"regexp"
	"strconv"
	"strings"
	"unicode/utf16"
)

// element is a part of a document's structure, as those hear it who do not see the pages:
// a heading, a paragraph, a table with its rows, a figure with what it shows in words.
// Kinds are the standard structure types of ISO 32000-1, 14.8.4.
type element struct {
	kind string
	alt  string
	kids []any // *element, or shown
	id   int   // of its object, once written
}

// shown is a piece of a page that an element consists of: its page, from 0, and its number
// there.
type shown struct{ page, mark int }

func (e *element) add(kind string) *element {
	kid := &element{kind: kind}
	e.kids = append(e.kids, kid)
	return kid
}

// errTags is a file that is not laid out as the writer of this package lays it out.
var errTags = errors.New("the PDF cannot be tagged: its objects are not where its table says")

var (
	rootAt  = regexp.MustCompile(`/Root (\d+) 0 R`)
	sizeAt  = regexp.MustCompile(`/Size (\d+)`)
	kidsAt  = regexp.MustCompile(`/Kids \[([^\]]*)\]`)
	pagesAt = regexp.MustCompile(`/Pages (\d+) 0 R`)
	tableAt = regexp.MustCompile(`startxref\n(\d+)\n%%EOF\s*$`)
)

// tag appends the structure of a document to a PDF, as an incremental update: objects that
// are new, and those of the catalog and the pages anew. The writer of the pages knows
// nothing of structure; what it wrote stays as it is.
//
// Source: ISO 32000-1, 7.5.6 incremental updates, 14.7 logical structure.
func tag(pdf []byte, root *element) ([]byte, error) {
	found := tableAt.FindSubmatch(pdf)
	if found == nil {
		return nil, errTags
	}
	table, _ := strconv.Atoi(string(found[1]))
	if table > len(pdf) {
		return nil, errTags
	}
	u := &update{pdf: pdf, table: table}
	trailer := string(pdf[table:])
	catalog, pages, err := u.pages(trailer)
	if err != nil {
		return nil, err
	}
	size := sizeAt.FindStringSubmatch(trailer)
	if size == nil {
		return nil, errTags
	}
	u.next, _ = strconv.Atoi(size[1])
	u.out.Write(pdf)
	if err := u.write(root, catalog, pages); err != nil {
		return nil, err
	}
	_, keep, _ := strings.Cut(trailer, "trailer\n<<\n")
	keep, _, _ = strings.Cut(keep, ">>")
	u.close(sizeAt.ReplaceAllString(keep, ""))
	return u.out.Bytes(), nil
}

// update is what is appended to a PDF.
type update struct {
	pdf   []byte
	table int // where its table of objects begins
	out   bytes.Buffer
	next  int // number of the next new object
	at    []place
}

// place is where an object stands in the file.
type place struct{ id, offset int }

// object is the text of an object that stands in the file, without its end.
func (u *update) object(id int) (string, error) {
	lines := bytes.Split(u.pdf[u.table:], []byte("\n")) // "xref", how many, then one for each object
	if id < 0 || id+2 >= len(lines) || len(lines[id+2]) < 10 {
		return "", errTags
	}
	offset, err := strconv.Atoi(string(lines[id+2][:10]))
	begin := []byte(fmt.Sprintf("%d 0 obj\n", id))
	if err != nil || offset < 0 || offset >= len(u.pdf) || !bytes.HasPrefix(u.pdf[offset:], begin) {
		return "", errTags
	}
	text, _, ok := bytes.Cut(u.pdf[offset+len(begin):], []byte("endobj"))
	text = bytes.TrimSpace(text)
	if !ok || !bytes.HasSuffix(text, []byte(">>")) {
		return "", errTags
	}
	return string(text[:len(text)-2]), nil
}

// pages finds the catalog's number and those of the pages, in order.
func (u *update) pages(trailer string) (catalog int, pages []int, err error) {
	number := func(re *regexp.Regexp, in string) int {
		m := re.FindStringSubmatch(in)
		if m == nil {
			err = errTags
			return 0
		}
		n, _ := strconv.Atoi(m[1])
		return n
	}
	catalog = number(rootAt, trailer)
	if err != nil {
		return 0, nil, err
	}
	text, err := u.object(catalog)
	if err != nil {
		return 0, nil, err
	}
	list, err := u.object(number(pagesAt, text))
	if err != nil {
		return 0, nil, err
	}
	kids := kidsAt.FindStringSubmatch(list)
	if kids == nil {
		return 0, nil, errTags
	}
	for i, field := range strings.Fields(kids[1]) {
		if i%3 == 0 {
			id, _ := strconv.Atoi(field)
			pages = append(pages, id)
		}
	}
	return catalog, pages, nil
}

func (u *update) begin(id int) {
	u.at = append(u.at, place{id, u.out.Len()})
	fmt.Fprintf(&u.out, "%d 0 obj\n", id)
}

func (u *update) new() int {
	u.next++
	return u.next - 1
}

// write appends the pages and the catalog anew, the elements, and the tree that leads from
// what is shown on a page to its element.
func (u *update) write(root *element, catalog int, pages []int) error {
	var number func(e *element)
	owners, missing := make([][]int, len(pages)), false // by page, by mark: the element
	number = func(e *element) {
		e.id = u.new()
		for _, kid := range e.kids {
			switch kid := kid.(type) {
			case *element:
				number(kid)
			case shown:
				if kid.page >= len(owners) {
					missing = true // the file has fewer pages than were written
					continue
				}
				for len(owners[kid.page]) <= kid.mark {
					owners[kid.page] = append(owners[kid.page], 0)
				}
				owners[kid.page][kid.mark] = e.id
			}
		}
	}
	tree, back := u.new(), u.new()
	number(root)
	if missing {
		return errTags
	}
	for i, id := range pages {
		text, err := u.object(id)
		if err != nil {
			return err
		}
		u.begin(id)
		fmt.Fprintf(&u.out, "%s\n/StructParents %d /Tabs /S>>\nendobj\n", text, i)
	}
	text, err := u.object(catalog)
	if err != nil {
		return err
	}
	u.begin(catalog)
	fmt.Fprintf(&u.out, "%s\n/Version /1.7 /MarkInfo <</Marked true>> /StructTreeRoot %d 0 R /ViewerPreferences <</DisplayDocTitle "+
		"true>>\n>>\nendobj\n", text, tree)
	u.begin(tree)
	fmt.Fprintf(&u.out, "<</Type /StructTreeRoot /K %d 0 R /ParentTree %d 0 R /ParentTreeNextKey %d>>\nendobj\n", root.id, back, len(pages))
	u.begin(back)
	u.out.WriteString("<</Nums [\n")
	for i, list := range owners {
		fmt.Fprintf(&u.out, "%d [", i)
		for _, id := range list {
			fmt.Fprintf(&u.out, "%d 0 R ", id)
		}
		u.out.WriteString("]\n")
	}
	u.out.WriteString("]>>\nendobj\n")
	u.element(root, tree, pages)
	return nil
}

func (u *update) element(e *element, parent int, pages []int) {
	u.begin(e.id)
	fmt.Fprintf(&u.out, "<</S /%s /P %d 0 R", e.kind, parent)
	if e.alt != "" {
		fmt.Fprintf(&u.out, " /Alt <%s>", utf16Hex(e.alt))
	}
	if e.kind == "TH" {
		u.out.WriteString(" /A <</O /Table /Scope /Column>>")
	}
	u.out.WriteString(" /K [")
	for _, kid := range e.kids {
		switch kid := kid.(type) {
		case *element:
			fmt.Fprintf(&u.out, "%d 0 R ", kid.id)
		case shown:
			fmt.Fprintf(&u.out, "<</Type /MCR /Pg %d 0 R /MCID %d>> ", pages[kid.page], kid.mark)
		}
	}
	u.out.WriteString("]>>\nendobj\n")
	for _, kid := range e.kids {
		if kid, ok := kid.(*element); ok {
			u.element(kid, e.id, pages)
		}
	}
}

// close ends the update with the table of its objects.
func (u *update) close(trailer string) {
	table := u.out.Len()
	u.out.WriteString("xref\n")
	for _, p := range u.at {
		fmt.Fprintf(&u.out, "%d 1\n%010d 00000 n \n", p.id, p.offset)
	}
	fmt.Fprintf(&u.out, "trailer\n<<\n/Size %d\n/Prev %d%s>>\nstartxref\n%d\n%%%%EOF\n", u.next, u.table, trailer, table)
}

// utf16Hex is a text as a PDF holds it that is not ASCII alone.
func utf16Hex(text string) string {
	var b strings.Builder
	b.WriteString("FEFF")
	for _, unit := range utf16.Encode([]rune(text)) {
		fmt.Fprintf(&b, "%04X", unit)
	}
	return b.String()
}
