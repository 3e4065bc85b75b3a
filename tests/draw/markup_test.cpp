#include "draw/markup.hpp"

#include <gtest/gtest.h>

#include "draw/gnuplot.hpp"

namespace jampot {
namespace {

TEST(Markup, HtmlTextEndsNoElementAndNoAttribute) {
  EXPECT_EQ(html_text("<a href=\"x\">'&</a>"), "&lt;a href=&quot;x&quot;&gt;&#39;&amp;&lt;/a&gt;");
  EXPECT_EQ(html_text("\x01"), "\xEF\xBF\xBD");
}

TEST(Markup, MarkdownTextIsText) {
  EXPECT_EQ(markdown_text("<img onerror=x>"), "\\<img onerror=x\\>");
  EXPECT_EQ(markdown_text("[a](javascript:b)"), "\\[a\\](javascript:b)");
  EXPECT_EQ(markdown_text("a | b `c` *d* _e_"), "a \\| b \\`c\\` \\*d\\* \\_e\\_");
  EXPECT_EQ(markdown_text("# one\n- two\n1. three\n    four\n=\nplain 1.5"),
            "\\# one\n\\- two\n1\\. three\nfour\n\\=\nplain 1.5");
}

TEST(Markup, LatexTextIsText) {
  EXPECT_EQ(latex_text("50 % of {a}_1 & \\input{x} ~ $^#"),
            "50 \\% of \\{a\\}\\_1 \\& \\textbackslash{}input\\{x\\} \\textasciitilde{} "
            "\\$\\textasciicircum{}\\#");
}

TEST(Markup, JsonInAScriptEndsNothing) {
  EXPECT_EQ(script_json("{\"a\":\"<!--<script></script>&\"}"),
            "{\"a\":\"\\u003c!--\\u003cscript\\u003e\\u003c/script\\u003e\\u0026\"}");
}

TEST(Markup, LinksHoldTheNameOnly) {
  EXPECT_EQ(link_to("a b(1).svg"), "a%20b%281%29.svg");
}

TEST(Gnuplot, SignsThatCouldMeanSomethingAreNumbers) {
  EXPECT_EQ(gnuplot_text("`touch x`"), "\"\\140touch x\\140\"");
  EXPECT_EQ(gnuplot_text("it's \"\\"), "\"it\\047s \\042\\134\"");
  EXPECT_EQ(gnuplot_text("$05a5"), "\"\\044\\060\\065a5\"");
  EXPECT_EQ(gnuplot_text("a\nb"),
            "\"a\xEF\xBF\xBD"
            "b\"");
}

}  // namespace
}  // namespace jampot
