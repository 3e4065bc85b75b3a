#include "figure_reading.hpp"

#include <cmath>
#include <nlohmann/json.hpp>

#include "jampot/draw/layout.hpp"
#include "jampot/files/json_text.hpp"

namespace jampot {
namespace {

// Seven digits: more than a pixel shows.
double rounded(double value) {
  if (value == 0 || !std::isfinite(value)) return 0;
  const double unit = std::pow(10.0, std::floor(std::log10(std::abs(value))) - 6);
  return std::round(value / unit) * unit;
}

Json axis(const Axis& axis) {
  return {{"label", axis.label}, {"low", axis.low}, {"high", axis.high}, {"log", axis.logarithmic}};
}

}  // namespace

std::string reading_of(const Figure& figure) {
  Json json{{"width", figure.width}, {"height", figure.height}, {"panels", Json::array()}};
  const std::vector<Box> frames = frames_of(figure);
  for (std::size_t p = 0; p < frames.size(); ++p) {
    const Panel& panel = figure.panels[p];
    const Box& frame = frames[p];
    Json entry{{"frame", {frame.left, frame.top, frame.right, frame.bottom}},
               {"x", axis(panel.x)},
               {"y", axis(panel.y)},
               {"series", Json::array()}};
    if (panel.bare) {
      entry["corners"] = panel.corners;
      entry["rightAngled"] = panel.right_angled;
    }
    for (const Series& series : panel.series) {
      Json spots = Json::array();
      for (const Spot& spot : series.spots) spots.push_back({rounded(spot.x), rounded(spot.y)});
      entry["series"].push_back({{"label", series.label}, {"spots", std::move(spots)}});
    }
    for (const Callout& callout : panel.callouts)
      entry["series"].push_back(
          {{"label", callout.text}, {"spots", {{rounded(callout.spot.x), rounded(callout.spot.y)}}}});
    json["panels"].push_back(std::move(entry));
  }
  return json_line(json);
}

const char* const reading_script_sha256 = "GtQhOcntQUB0jLXkBXypPCdx+AL0fkWOVmRk/uE4BvM=";

const char* const reading_script = R"(
document.querySelectorAll('figure').forEach(function (figure) {
  var data = figure.querySelector('script[type="application/json"]'), svg = figure.querySelector('svg');
  if (!data || !svg) return;
  data = JSON.parse(data.textContent);
  var whole = [0, 0, data.width, data.height], view = whole.slice(), held = null;
  var note = document.createElement('div');
  note.className = 'reading';
  figure.appendChild(note);
  function show() { svg.setAttribute('viewBox', view.join(' ')); }
  function at(event) {  // in pixels of the figure
    var box = svg.getBoundingClientRect();
    return [view[0] + (event.clientX - box.left) / box.width * view[2],
            view[1] + (event.clientY - box.top) / box.height * view[3]];
  }
  function toPixel(axis, value, from, to) {
    var share = axis.log ? Math.log(value / axis.low) / Math.log(axis.high / axis.low)
                         : (value - axis.low) / (axis.high - axis.low);
    return from + share * (to - from);
  }
  function toValue(axis, pixel, from, to) {
    var share = (pixel - from) / (to - from);
    return axis.log ? axis.low * Math.pow(axis.high / axis.low, share) : axis.low + share * (axis.high - axis.low);
  }
  function number(value) { return Number(value.toPrecision(5)).toString(); }
  function words(panel, x, y) {
    if (!panel.corners) return panel.x.label + ' ' + number(x) + '\n' + panel.y.label + ' ' + number(y);
    var top = panel.rightAngled ? y : y / 0.8660254037844386, right = panel.rightAngled ? x : x - top / 2;
    var left = 1 - top - right;
    if (Math.min(top, left, right) < -0.005) return null;
    return [top, left, right].map(function (f, k) {
      return panel.corners[k] + ' ' + Math.max(0, f).toFixed(4);
    }).join('\n');
  }
  function read(event) {
    var point = at(event), text = null;
    data.panels.forEach(function (panel) {
      var f = panel.frame;
      if (point[0] < f[0] || point[0] > f[2] || point[1] < f[1] || point[1] > f[3]) return;
      var nearest = 10 * view[2] / data.width, found = null;
      panel.series.forEach(function (series) {
        series.spots.forEach(function (spot) {
          var away = Math.hypot(toPixel(panel.x, spot[0], f[0], f[2]) - point[0],
                                toPixel(panel.y, spot[1], f[3], f[1]) - point[1]);
          if (away < nearest) { nearest = away; found = [series.label, spot]; }
        });
      });
      var x = found ? found[1][0] : toValue(panel.x, point[0], f[0], f[2]);
      var y = found ? found[1][1] : toValue(panel.y, point[1], f[3], f[1]);
      var said = words(panel, x, y);
      if (said) text = (found && found[0] ? found[0] + '\n' : '') + said;
    });
    note.textContent = text || '';
    note.style.display = text ? 'block' : 'none';
    var box = figure.getBoundingClientRect();
    note.style.left = event.clientX - box.left + 16 + 'px';
    note.style.top = event.clientY - box.top + 16 + 'px';
  }
  svg.addEventListener('wheel', function (event) {
    if (!event.ctrlKey && !event.shiftKey && !figure.classList.contains('chosen')) return;
    event.preventDefault();
    var centre = at(event), factor = event.deltaY < 0 ? 0.8 : 1.25;
    if (view[2] * factor > whole[2]) { view = whole.slice(); show(); return; }
    view = [centre[0] + (view[0] - centre[0]) * factor, centre[1] + (view[1] - centre[1]) * factor,
            view[2] * factor, view[3] * factor];
    show();
  }, {passive: false});
  svg.addEventListener('mousedown', function (event) {
    figure.classList.add('chosen');
    held = {point: at(event)};
    event.preventDefault();
  });
  window.addEventListener('mouseup', function () { held = null; });
  svg.addEventListener('mousemove', function (event) {
    if (held) {
      var point = at(event);
      view[0] += held.point[0] - point[0];
      view[1] += held.point[1] - point[1];
      show();
    }
    read(event);
  });
  svg.addEventListener('mouseleave', function () {
    note.style.display = 'none';
    figure.classList.remove('chosen');
  });
  svg.addEventListener('dblclick', function () { view = whole.slice(); show(); });
});
)";

}  // namespace jampot
