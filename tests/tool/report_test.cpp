// The page of a report in a browser without a window.
#include <fmt/format.h>

#include "run_tool.hpp"

namespace jampot {
namespace {

// The page as it stands in the browser after its own scripts and `script`, which leaves what it found in the
// title.
std::string in_browser(const test::Workplace& workplace, const std::string& page, const std::string& script) {
  std::string text = workplace.read(page);
  // The page lets no script run but its own; the one that tries it needs leave.
  const std::size_t policy = text.find("script-src");
  if (!script.empty()) text.replace(policy, text.find('"', policy) - policy, "script-src 'unsafe-inline'");
  const std::size_t end = text.rfind("</body>");
  if (!script.empty()) text.insert(end, "<script>" + script + "</script>");
  workplace.write("tried.html", text);
  const std::string command = fmt::format(
      "cd '{0}' && HOME='{0}' chromium --headless --no-sandbox --disable-gpu --disable-dev-shm-usage "
      "--window-size=1280,900 --virtual-time-budget=2000 --dump-dom 'file://{0}/tried.html' > dom.html 2> "
      "dom.log",
      workplace.folder().string());
  EXPECT_EQ(std::system(command.c_str()), 0) << workplace.read("dom.log");
  return workplace.read("dom.html");
}

std::string title_of(const std::string& dom) {
  const std::size_t from = dom.find("<title>") + 7;
  return dom.substr(from, dom.find("</title>") - from);
}

TEST(Report, FiguresAreReadAndZoomed) {
  const test::Workplace workplace;
  workplace.write("page.job.toml", R"(report = "page.html"
[[step]]
command = "txy"
substances = ["ethanol", "water"]
liquid = "unifac"
pressure = "1 atm"
figure = "txy.svg"

[[step]]
command = "residue"
substances = ["acetone", "chloroform", "methanol"]
liquid = "unifac"
pressure = "1 atm"
figure = "map.svg"
)");
  ASSERT_EQ(workplace.run("job page.job.toml").status, 0);
  const std::string page = workplace.read("page.html");
  EXPECT_EQ(page.find("src="), std::string::npos);  // nothing is fetched
  EXPECT_EQ(page.find("@import"), std::string::npos);
  // Readable with scripts off: figures, tables and sentences stand in the page itself.
  EXPECT_NE(page.find("<svg"), std::string::npos);
  EXPECT_NE(page.find("distillation boundary"), std::string::npos);
  const std::string found = title_of(in_browser(workplace, "page.html", R"(
    function send(svg, kind, share, more) {
      var box = svg.getBoundingClientRect();
      svg.dispatchEvent(new (kind === 'wheel' ? WheelEvent : MouseEvent)(kind, Object.assign(
          {clientX: box.left + share[0] * box.width, clientY: box.top + share[1] * box.height, bubbles: true}, more)));
    }
    var svgs = document.querySelectorAll('figure svg'), notes = document.querySelectorAll('.reading');
    send(svgs[0], 'mousemove', [0.5, 0.5]);
    send(svgs[1], 'mousemove', [0.5, 0.55]);
    var before = svgs[0].getAttribute('viewBox');
    send(svgs[0], 'mousedown', [0.5, 0.5]);
    send(svgs[0], 'wheel', [0.5, 0.5], {deltaY: -1, cancelable: true});
    var zoomed = svgs[0].getAttribute('viewBox').split(' ');
    send(svgs[0], 'dblclick', [0.5, 0.5]);
    document.title = [svgs.length, notes[0].textContent, notes[1].textContent, Number(zoomed[2]).toFixed(0),
                      svgs[0].getAttribute('viewBox')].join('|').replace(/\n/g, ';');
  )"));
  EXPECT_NE(found.find("2|"), std::string::npos) << found;
  EXPECT_NE(found.find("mole fraction"), std::string::npos) << found;
  EXPECT_NE(found.find("acetone"), std::string::npos) << found;
  EXPECT_NE(found.find("|1024|0 0 1280 800"), std::string::npos) << found;  // 0.8 of the width, and back
}

// Whatever stands in titles, notes, labels and sources, the page stays whole, and only its own script runs.
TEST(Report, TextsAreNoMarkup) {
  const test::Workplace workplace;
  const std::string hostile =
      "<!--<script>document.title='ran'</script><img src=x onerror=document.title='ran'>";
  workplace.write("page.job.toml", R"toml(title = "TEXT"
note = "TEXT [link](javascript:alert(1))"
report = ["page.html", "page.md"]
[mixture]
substances = ["ethanol", "water"]
liquid = "unifac"
label = ["ethanol=TEXT"]
[[step]]
command = "txy"
heading = "TEXT"
note = "# TEXT"
pressure = "1 atm"
figure = "txy.svg"
[[step]]
name = "middle"
command = "pxy"
temperature = "50 degC"
[[step]]
name = "last"
command = "xy"
heading = "The last part"
pressure = "1 atm"
figure = "xy.svg"
)toml");
  std::string job = workplace.read("page.job.toml");
  for (std::size_t at = 0; (at = job.find("TEXT", at)) != std::string::npos; at += hostile.size())
    job.replace(at, 4, hostile);
  workplace.write("page.job.toml", job);
  ASSERT_EQ(workplace.run("job page.job.toml").status, 0);
  const std::string dom = in_browser(workplace, "page.html", "");
  EXPECT_NE(title_of(dom), "ran");
  EXPECT_NE(dom.find("The last part"), std::string::npos);
  EXPECT_NE(dom.find("class=\"reading\""), std::string::npos);  // its own script ran
  EXPECT_EQ(dom.find("<img"), std::string::npos);
  const std::string markdown = workplace.read("page.md");
  for (const char* raw : {" <", "\n<", "|<", "[link](", "\n# <"})
    EXPECT_EQ(markdown.find(raw), std::string::npos) << raw;
}

}  // namespace
}  // namespace jampot
