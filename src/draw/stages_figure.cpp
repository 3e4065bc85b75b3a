#include "jampot/draw/stages_figure.hpp"

#include <fmt/format.h>

#include "jampot/draw/looks.hpp"

namespace jampot {

Figure stages_figure(const BinaryCurve& curve, std::size_t light, const ColumnTask& task,
                     const ColumnStages& stages, const Substance& substance) {
  Figure figure;
  Panel panel;
  panel.square = true;
  panel.x = {fmt::format("mole fraction of {} (liquid)", substance.name), 0, 1};
  panel.y = {fmt::format("mole fraction of {} (vapour)", substance.name), 0, 1};
  panel.series.push_back(straight(looks::reference, {0, 0}, {1, 1}));
  Series equilibrium{{}, "equilibrium", Stroke::solid, Mark::none, colours::liquid, 2};
  for (const BinaryPoint& point : curve.points) equilibrium.spots.push_back({point.x[light], point.y[light]});
  panel.series.push_back(std::move(equilibrium));
  // From the balances: down from the top as far as the feed, then to the bottom.
  const double slope = stages.reflux / (stages.reflux + 1), q = task.feed_liquid,
               b = task.top / (stages.reflux + 1);
  const double x = (task.feed + b * (q - 1)) / (q - slope * (q - 1)), y = task.top + slope * (x - task.top);
  Series upper{{{task.top, task.top}, {x, y}}, "", Stroke::solid, Mark::none, colours::vapour, 1.6},
      lower{{{x, y}, {task.bottom, task.bottom}}, "", Stroke::solid, Mark::none, colours::vapour, 1.6},
      feed{{{task.feed, task.feed}, {x, y}}, "", Stroke::dashed, Mark::none, colours::balance, 1.4};
  upper.label = "operating lines";
  feed.label = "feed";
  upper.in_key = feed.in_key = true;
  panel.series.push_back(std::move(upper));
  panel.series.push_back(std::move(lower));
  panel.series.push_back(std::move(feed));
  Series steps{{{task.top, task.top}}, "stages", Stroke::solid, Mark::none, colours::plain, 1.1};
  steps.in_key = true;
  for (std::size_t n = 0; n < stages.stages.size(); ++n) {
    const ColumnStage& stage = stages.stages[n];
    steps.spots.push_back({stage.x, stage.y});
    const double below = n + 1 < stages.stages.size() ? stages.stages[n + 1].y : stage.x;
    steps.spots.push_back({stage.x, below});
  }
  panel.series.push_back(std::move(steps));
  panel.callouts.push_back({{task.top, task.top}, fmt::format("top {:.4g}", task.top), Mark::circle});
  panel.callouts.push_back({{task.feed, task.feed}, fmt::format("feed {:.4g}", task.feed), Mark::circle});
  panel.callouts.push_back(
      {{task.bottom, task.bottom}, fmt::format("bottom {:.4g}", task.bottom), Mark::circle});
  figure.panels = {panel};
  return figure;
}

}  // namespace jampot
