#include "verbs.h"

#include "alarm/cam.h"
#include "alarm/ring.h"
#include "beat/beat_analysis.h"
#include "beat/rate_fit.h"
#include "bench/stops.h"
#include "escapement/cause.h"
#include "escapement/layout.h"
#include "escapement/lever.h"
#include "escapement/pallets_part.h"
#include "escapement/round.h"
#include "escapement/simulation.h"
#include "escapement/wheel_part.h"
#include "job/new_job.h"
#include "making/concentric.h"
#include "making/cut_ring.h"
#include "making/depthing.h"
#include "making/dividing.h"
#include "making/dividing_table.h"
#include "making/fit_limits.h"
#include "making/fly_cutter.h"
#include "making/hole_circle.h"
#include "making/wheel_blank.h"
#include "oscillator/balance.h"
#include "oscillator/balance_wheel.h"
#include "oscillator/beat_setting.h"
#include "oscillator/compensation.h"
#include "oscillator/compound_pendulum.h"
#include "oscillator/crutch_setting.h"
#include "oscillator/decay.h"
#include "oscillator/hairspring_choice.h"
#include "oscillator/pendulum.h"
#include "oscillator/pendulum_design.h"
#include "oscillator/poise.h"
#include "oscillator/suspension.h"
#include "oscillator/torsion.h"
#include "parts/equal_set.h"
#include "parts/flat_shape.h"
#include "parts/joint.h"
#include "parts/teeth_ways.h"
#include "parts/template_sheet.h"
#include "parts/thread.h"
#include "parts/turned.h"
#include "pivots/arbor_runout.h"
#include "pivots/arbor_taper.h"
#include "pivots/curled_bush.h"
#include "pivots/end_shake.h"
#include "pivots/pivot_strength.h"
#include "pivots/repivot.h"
#include "pivots/tilt.h"
#include "power/fusee.h"
#include "power/power_chain.h"
#include "power/rewind.h"
#include "power/spring_match.h"
#include "power/torque_log.h"
#include "power/weight_drive.h"
#include "report/job_archive.h"
#include "report/job_steps.h"
#include "report/papers.h"
#include "report/report.h"
#include "report/today.h"
#include "sound/blows.h"
#include "sound/striking.h"
#include "sound/ticking.h"
#include "stock/stock.h"
#include "strike/count_wheel.h"
#include "strike/fly.h"
#include "strike/heard.h"
#include "strike/piece.h"
#include "strike/restore.h"
#include "strike/sequence.h"
#include "strike/snail.h"
#include "strike/strike_train.h"
#include "strike/together.h"
#include "teeth/geometry.h"
#include "teeth/mesh_simulation.h"
#include "teeth/profile.h"
#include "train/find.h"
#include "train/hands_friction.h"
#include "train/module_fit.h"
#include "train/motion_work.h"
#include "train/restore.h"
#include "train/train.h"
#include "wood/frame.h"
#include "wood/let_in.h"
#include "wood/season.h"

namespace echappe {

const std::vector<const Calculation*>& verbs() {
    static const std::vector<const Calculation*> all = {
        &train_calculation(),
        &find_calculation(),
        &restore_calculation(),
        &geometry_calculation(),
        &profile_calculation(),
        &module_fit_calculation(),
        &mesh_simulation_calculation(),
        &pendulum_calculation(),
        &motion_work_calculation(),
        &dividing_calculation(),
        &dividing_table_calculation(),
        &blank_calculation(),
        &cut_ring_calculation(),
        &fit_limits_calculation(),
        &concentric_calculation(),
        &hole_circle_calculation(),
        &thread_calculation(),
        &joint_calculation(),
        &equal_set_calculation(),
        &turned_calculation(),
        &flat_shape_calculation(),
        &template_calculation(),
        &teeth_ways_calculation(),
        &depthing_calculation(),
        &cutters_calculation(),
        &fly_cutter_calculation(),
        &trace_calculation(),
        &tilt_calculation(),
        &clearance_calculation(),
        &push_calculation(),
        &bush_plan_calculation(),
        &end_shake_calculation(),
        &curled_bush_calculation(),
        &arbor_runout_calculation(),
        &arbor_taper_calculation(),
        &pivot_strength_calculation(),
        &repivot_calculation(),
        &compound_pendulum_calculation(),
        &compensation_calculation(),
        &pendulum_design_calculation(),
        &suspension_calculation(),
        &torsion_calculation(),
        &balance_calculation(),
        &balance_wheel_calculation(),
        &hairspring_choice_calculation(),
        &poise_calculation(),
        &beat_setting_calculation(),
        &decay_calculation(),
        &spring_size_calculation(),
        &spring_torque_calculation(),
        &spring_match_calculation(),
        &torque_log_calculation(),
        &fusee_calculation(),
        &fusee_set_up_calculation(),
        &weight_drive_calculation(),
        &rewind_calculation(),
        &power_chain_calculation(),
        &deadbeat_calculation(),
        &recoil_calculation(),
        &lever_calculation(),
        &pin_pallets_calculation(),
        &escapement_simulation_calculation(),
        &escapement_cause_calculation(),
        &escapement_round_calculation(),
        &escape_wheel_calculation(),
        &pallets_part_calculation(),
        &lever_part_calculation(),
        &count_wheel_calculation(),
        &snail_calculation(),
        &strike_train_calculation(),
        &strike_sequence_calculation(),
        &strike_heard_calculation(),
        &strike_together_calculation(),
        &strike_restore_calculation(),
        &strike_piece_calculation(),
        &wood_let_in_calculation(),
        &wood_frame_calculation(),
        &time_cam_calculation(),
        &alarm_ring_calculation(),
        &fly_calculation(),
        &hands_friction_calculation(),
        &wood_season_calculation(),
        &crutch_setting_calculation(),
        &rate_fit_calculation(),
        &beat_analysis_calculation(),
        &ticking_calculation(),
        &striking_calculation(),
        &blows_calculation(),
        &hub_repair_calculation(),
        &new_job_calculation(),
        &job_report_calculation(),
        &job_check_calculation(),
        &job_steps_calculation(),
        &job_archive_calculation(),
        &job_sheet_calculation(),
        &bench_today_calculation(),
        &diagnose_calculation(),
        &stops_calculation(),
    };
    return all;
}

}  // namespace echappe
